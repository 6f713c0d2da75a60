ALTER TABLE "outcomes" ADD COLUMN "retired_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "outcomes" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;