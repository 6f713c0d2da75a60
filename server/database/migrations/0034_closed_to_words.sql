ALTER TABLE "activities" ADD COLUMN "closed_to_words" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "contributions" ADD COLUMN "closed_to_words" boolean DEFAULT false NOT NULL;