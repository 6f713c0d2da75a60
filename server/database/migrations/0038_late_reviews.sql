ALTER TABLE "review_rounds" ADD COLUMN "released_up_to" timestamp with time zone;--> statement-breakpoint
-- What has been seen stays seen.
UPDATE "review_rounds" r SET "released_up_to" = greatest(r."released_at", (
  SELECT max(a."handed_in_at") FROM "allocations" a WHERE a."activity_id" = r."activity_id"
)) WHERE r."released_at" IS NOT NULL;
