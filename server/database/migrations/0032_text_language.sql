ALTER TABLE "texts" ADD COLUMN "language" text;--> statement-breakpoint
ALTER TABLE texts ADD CONSTRAINT texts_language_known CHECK (language IN ('ar', 'bg', 'ca', 'cs', 'da', 'de', 'el', 'en', 'es', 'fa', 'fi', 'fr', 'he', 'hu', 'it', 'ja', 'ko', 'la', 'nl', 'no', 'pl', 'pt', 'ro', 'ru', 'sv', 'tr', 'uk', 'zh'));
