ALTER TABLE "files" ADD COLUMN "words" integer;--> statement-breakpoint
-- what is here already is counted by the spaces between words, without its tags
UPDATE "files" SET "words" = (
  SELECT count(*)
  FROM regexp_split_to_table(coalesce(regexp_replace(regexp_replace("text_html", '</?(a|b|em|i|s|span|strong|sub|sup|u)( [^>]*)?>', '', 'g'), '<[^>]*>', ' ', 'g'), "paper_words"), '\s+') AS word
  WHERE word ~ '\w'
)
WHERE "text_html" IS NOT NULL OR "paper_words" IS NOT NULL;
