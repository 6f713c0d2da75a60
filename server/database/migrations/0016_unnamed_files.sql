ALTER TABLE "files" ADD COLUMN "paper_words" text;--> statement-breakpoint
ALTER TABLE "files" ADD COLUMN "without_metadata" boolean DEFAULT false NOT NULL;