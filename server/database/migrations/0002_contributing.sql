CREATE TABLE "joint_seminars" (
	"activity_id" uuid NOT NULL,
	"seminar_id" uuid NOT NULL,
	CONSTRAINT "joint_seminars_activity_id_seminar_id_pk" PRIMARY KEY("activity_id","seminar_id")
);
--> statement-breakpoint
CREATE TABLE "aliases" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"seminar_id" uuid NOT NULL,
	"activity_id" uuid NOT NULL,
	"thread_id" uuid NOT NULL,
	"enrolment_id" uuid NOT NULL,
	"name" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "contribution_files" (
	"seminar_id" uuid NOT NULL,
	"contribution_id" uuid NOT NULL,
	"file_id" uuid NOT NULL,
	"position" integer NOT NULL,
	CONSTRAINT "contribution_files_contribution_id_file_id_pk" PRIMARY KEY("contribution_id","file_id")
);
--> statement-breakpoint
CREATE TABLE "contribution_marks" (
	"seminar_id" uuid NOT NULL,
	"contribution_id" uuid PRIMARY KEY NOT NULL,
	"done" boolean NOT NULL,
	"marked_by" uuid NOT NULL,
	"marked_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "feeds" (
	"secret" text PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"activity_id" uuid NOT NULL,
	"enrolment_id" uuid NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "letter_replies" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"activity_id" uuid NOT NULL,
	"enrolment_id" uuid NOT NULL,
	"author_id" uuid NOT NULL,
	"doc" jsonb NOT NULL,
	"html" text NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
DROP INDEX "one_draft_per_place";--> statement-breakpoint
ALTER TABLE "enrolments" ADD COLUMN "named_in_feeds" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "files" ADD COLUMN "text_html" text;--> statement-breakpoint
ALTER TABLE "contributions" ADD COLUMN "thread_id" uuid;--> statement-breakpoint
ALTER TABLE "contributions" ADD COLUMN "slot" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "contributions" ADD COLUMN "prompt_id" uuid;--> statement-breakpoint
ALTER TABLE "contributions" ADD COLUMN "seq" bigint;--> statement-breakpoint
ALTER TABLE "contributions" ADD COLUMN "show_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "contributions" ADD COLUMN "on_top" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "contributions" ADD COLUMN "open_to_class" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "contributions" ADD COLUMN "sent_back" text;--> statement-breakpoint
ALTER TABLE "contributions" ADD COLUMN "sources" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "contributions" ADD COLUMN "figures" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "contributions" ADD COLUMN "withdrawn_by" uuid;--> statement-breakpoint
ALTER TABLE "visits" ADD COLUMN "seen_seq" bigint DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "joint_seminars" ADD CONSTRAINT "joint_seminars_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "joint_seminars" ADD CONSTRAINT "joint_seminars_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "aliases" ADD CONSTRAINT "aliases_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "aliases" ADD CONSTRAINT "aliases_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "aliases" ADD CONSTRAINT "aliases_enrolment_id_enrolments_id_fk" FOREIGN KEY ("enrolment_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "contribution_files" ADD CONSTRAINT "contribution_files_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "contribution_files" ADD CONSTRAINT "contribution_files_contribution_id_contributions_id_fk" FOREIGN KEY ("contribution_id") REFERENCES "public"."contributions"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "contribution_files" ADD CONSTRAINT "contribution_files_file_id_files_id_fk" FOREIGN KEY ("file_id") REFERENCES "public"."files"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "contribution_marks" ADD CONSTRAINT "contribution_marks_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "contribution_marks" ADD CONSTRAINT "contribution_marks_contribution_id_contributions_id_fk" FOREIGN KEY ("contribution_id") REFERENCES "public"."contributions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "contribution_marks" ADD CONSTRAINT "contribution_marks_marked_by_enrolments_id_fk" FOREIGN KEY ("marked_by") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "feeds" ADD CONSTRAINT "feeds_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "feeds" ADD CONSTRAINT "feeds_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "feeds" ADD CONSTRAINT "feeds_enrolment_id_enrolments_id_fk" FOREIGN KEY ("enrolment_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "letter_replies" ADD CONSTRAINT "letter_replies_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "letter_replies" ADD CONSTRAINT "letter_replies_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "letter_replies" ADD CONSTRAINT "letter_replies_enrolment_id_enrolments_id_fk" FOREIGN KEY ("enrolment_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "letter_replies" ADD CONSTRAINT "letter_replies_author_id_enrolments_id_fk" FOREIGN KEY ("author_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "joint_seminars_seminar_id_index" ON "joint_seminars" USING btree ("seminar_id");--> statement-breakpoint
CREATE UNIQUE INDEX "aliases_thread_id_enrolment_id_index" ON "aliases" USING btree ("thread_id","enrolment_id");--> statement-breakpoint
CREATE UNIQUE INDEX "aliases_thread_id_name_index" ON "aliases" USING btree ("thread_id","name");--> statement-breakpoint
CREATE INDEX "aliases_activity_id_index" ON "aliases" USING btree ("activity_id");--> statement-breakpoint
CREATE INDEX "contribution_files_file_id_index" ON "contribution_files" USING btree ("file_id");--> statement-breakpoint
CREATE UNIQUE INDEX "feeds_activity_id_enrolment_id_index" ON "feeds" USING btree ("activity_id","enrolment_id");--> statement-breakpoint
CREATE INDEX "letter_replies_activity_id_enrolment_id_index" ON "letter_replies" USING btree ("activity_id","enrolment_id");--> statement-breakpoint
ALTER TABLE "contributions" ADD CONSTRAINT "contributions_withdrawn_by_enrolments_id_fk" FOREIGN KEY ("withdrawn_by") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "contributions_activity_id_seq_index" ON "contributions" USING btree ("activity_id","seq");--> statement-breakpoint
CREATE INDEX "timed_contributions" ON "contributions" USING btree ("show_at") WHERE state = 'scheduled';--> statement-breakpoint
CREATE INDEX "contributions_thread_id_index" ON "contributions" USING btree ("thread_id");--> statement-breakpoint
CREATE UNIQUE INDEX "one_draft_per_place" ON "contributions" USING btree ("activity_id","author_id",coalesce("parent_id", '00000000-0000-0000-0000-000000000000'),"slot") WHERE state = 'draft';--> statement-breakpoint
-- what was shown before keeps the order of its times, and knows its thread; visits keep what they had seen
UPDATE "contributions" c SET "seq" = o.n FROM (SELECT "id", row_number() OVER (PARTITION BY "activity_id" ORDER BY "shown_at", "id") AS n FROM "contributions" WHERE "state" IN ('shown', 'withdrawn')) o WHERE c."id" = o."id";--> statement-breakpoint
WITH RECURSIVE threads AS (SELECT "id", "id" AS root FROM "contributions" WHERE "parent_id" IS NULL UNION ALL SELECT c."id", t.root FROM "contributions" c JOIN threads t ON c."parent_id" = t."id") UPDATE "contributions" c SET "thread_id" = t.root FROM threads t WHERE c."id" = t."id";--> statement-breakpoint
UPDATE "visits" v SET "seen_seq" = coalesce((SELECT max(c."seq") FROM "contributions" c WHERE c."activity_id" = v."activity_id" AND c."shown_at" <= v."seen_until"), 0);
