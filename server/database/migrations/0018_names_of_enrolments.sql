ALTER TABLE "enrolments" ADD COLUMN "name" text;--> statement-breakpoint
ALTER TABLE "enrolments" ADD COLUMN "given_name" text;--> statement-breakpoint
ALTER TABLE "enrolments" ADD COLUMN "family_name" text;--> statement-breakpoint
ALTER TABLE "enrolments" ADD COLUMN "name_is_own" boolean DEFAULT false NOT NULL;--> statement-breakpoint
UPDATE "enrolments" e
  SET "name" = p."name", "given_name" = p."given_name", "family_name" = p."family_name"
  FROM "persons" p WHERE p."id" = e."person_id";--> statement-breakpoint
ALTER TABLE "enrolments" ALTER COLUMN "name" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "enrolments" ALTER COLUMN "given_name" SET NOT NULL;--> statement-breakpoint
ALTER TABLE "enrolments" ALTER COLUMN "family_name" SET NOT NULL;
