CREATE TABLE "address_links" (
	"digest" text PRIMARY KEY NOT NULL,
	"person_id" uuid NOT NULL,
	"email" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "rate_limits" (
	"key" text PRIMARY KEY NOT NULL,
	"points" integer DEFAULT 0 NOT NULL,
	"expire" bigint
);
--> statement-breakpoint
CREATE TABLE "setup_codes" (
	"digest" text PRIMARY KEY NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "enrolments" ADD COLUMN "given_to_address" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "persons" ADD COLUMN "confirmed_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "sessions" ADD COLUMN "id" uuid DEFAULT gen_random_uuid() NOT NULL;--> statement-breakpoint
ALTER TABLE "sessions" ALTER COLUMN "id" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "sessions" ADD COLUMN "last_seen_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "sessions" ADD COLUMN "browser" text;--> statement-breakpoint
ALTER TABLE "sessions" ADD COLUMN "agent" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "address_links" ADD CONSTRAINT "address_links_person_id_persons_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."persons"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "address_links_person_id_index" ON "address_links" USING btree ("person_id");--> statement-breakpoint
CREATE INDEX "password_links_person_id_index" ON "password_links" USING btree ("person_id");--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_id_unique" UNIQUE("id");--> statement-breakpoint
UPDATE "persons" SET "confirmed_at" = now() WHERE "founds_seminars" OR EXISTS (SELECT 1 FROM "password_links" l WHERE l."person_id" = "persons"."id" AND l."used_at" IS NOT NULL);--> statement-breakpoint
UPDATE "enrolments" SET "given_to_address" = false FROM "persons" p WHERE p."id" = "enrolments"."person_id" AND p."password_hash" IS NOT NULL;