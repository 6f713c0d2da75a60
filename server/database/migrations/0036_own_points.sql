ALTER TABLE "marks" ADD COLUMN "own_steps" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "marks" ADD COLUMN "before_take" jsonb;--> statement-breakpoint
-- Steps of a peer review that were not taken from readers are the marker's own.
UPDATE "marks" m SET "own_steps" = own.steps
FROM (
  SELECT c."mark_id", jsonb_agg(jsonb_build_object('criterionId', c."criterion_id", 'levelId', c."level_id", 'points', c."points") ORDER BY c."criterion_id") AS steps
  FROM "criterion_marks" c GROUP BY c."mark_id"
) own, "activities" a
WHERE own."mark_id" = m."id" AND a."id" = m."activity_id" AND a."kind" = 'review' AND m."taken_from" IS NULL;
