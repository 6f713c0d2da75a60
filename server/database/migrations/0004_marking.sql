CREATE TABLE "excuses" (
	"seminar_id" uuid NOT NULL,
	"activity_id" uuid NOT NULL,
	"enrolment_id" uuid NOT NULL,
	"reason" text NOT NULL,
	"made_by" uuid NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "excuses_activity_id_enrolment_id_pk" PRIMARY KEY("activity_id","enrolment_id")
);
--> statement-breakpoint
CREATE TABLE "gradebook_views" (
	"enrolment_id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"order" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"hidden" jsonb DEFAULT '[]'::jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "mark_files" (
	"seminar_id" uuid NOT NULL,
	"mark_id" uuid NOT NULL,
	"file_id" uuid NOT NULL,
	"spoken" boolean DEFAULT false NOT NULL,
	"taken_off" boolean DEFAULT false NOT NULL,
	"position" integer NOT NULL,
	CONSTRAINT "mark_files_mark_id_file_id_pk" PRIMARY KEY("mark_id","file_id")
);
--> statement-breakpoint
CREATE TABLE "marker_shares" (
	"seminar_id" uuid NOT NULL,
	"activity_id" uuid NOT NULL,
	"enrolment_id" uuid NOT NULL,
	"marker_id" uuid NOT NULL,
	CONSTRAINT "marker_shares_activity_id_enrolment_id_pk" PRIMARY KEY("activity_id","enrolment_id")
);
--> statement-breakpoint
CREATE TABLE "phrases" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"owner_id" uuid NOT NULL,
	"text" text NOT NULL,
	"criterion" text,
	"uses" integer DEFAULT 0 NOT NULL,
	"last_used_at" timestamp with time zone,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "second_marks" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"activity_id" uuid NOT NULL,
	"enrolment_id" uuid NOT NULL,
	"marker_id" uuid NOT NULL,
	"state" text DEFAULT 'asked' NOT NULL,
	"steps" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"remark" text DEFAULT '' NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"done_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "contribution_marks" ALTER COLUMN "done" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "marks" ALTER COLUMN "rubric_version_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "seminars" ADD COLUMN "grading" jsonb DEFAULT '{"missingIsZero":true,"countHeld":false,"gradingScaleId":null,"passPercent":null,"showTotal":true}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "activities" ADD COLUMN "combine" jsonb;--> statement-breakpoint
ALTER TABLE "categories" ADD COLUMN "drop_lowest" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "contribution_marks" ADD COLUMN "points" integer;--> statement-breakpoint
ALTER TABLE "marks" ADD COLUMN "override_points" integer;--> statement-breakpoint
ALTER TABLE "marks" ADD COLUMN "override_reason" text;--> statement-breakpoint
ALTER TABLE "marks" ADD COLUMN "excused_from" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "marks" ADD COLUMN "return_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "marks" ADD COLUMN "return_by" uuid;--> statement-breakpoint
ALTER TABLE "marks" ADD COLUMN "told_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "marks" ADD COLUMN "before" jsonb;--> statement-breakpoint
ALTER TABLE "excuses" ADD CONSTRAINT "excuses_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "excuses" ADD CONSTRAINT "excuses_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "excuses" ADD CONSTRAINT "excuses_enrolment_id_enrolments_id_fk" FOREIGN KEY ("enrolment_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "excuses" ADD CONSTRAINT "excuses_made_by_enrolments_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "gradebook_views" ADD CONSTRAINT "gradebook_views_enrolment_id_enrolments_id_fk" FOREIGN KEY ("enrolment_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "gradebook_views" ADD CONSTRAINT "gradebook_views_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "mark_files" ADD CONSTRAINT "mark_files_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "mark_files" ADD CONSTRAINT "mark_files_mark_id_marks_id_fk" FOREIGN KEY ("mark_id") REFERENCES "public"."marks"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "mark_files" ADD CONSTRAINT "mark_files_file_id_files_id_fk" FOREIGN KEY ("file_id") REFERENCES "public"."files"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "marker_shares" ADD CONSTRAINT "marker_shares_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "marker_shares" ADD CONSTRAINT "marker_shares_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "marker_shares" ADD CONSTRAINT "marker_shares_enrolment_id_enrolments_id_fk" FOREIGN KEY ("enrolment_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "marker_shares" ADD CONSTRAINT "marker_shares_marker_id_enrolments_id_fk" FOREIGN KEY ("marker_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "phrases" ADD CONSTRAINT "phrases_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "phrases" ADD CONSTRAINT "phrases_owner_id_enrolments_id_fk" FOREIGN KEY ("owner_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "second_marks" ADD CONSTRAINT "second_marks_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "second_marks" ADD CONSTRAINT "second_marks_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "second_marks" ADD CONSTRAINT "second_marks_enrolment_id_enrolments_id_fk" FOREIGN KEY ("enrolment_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "second_marks" ADD CONSTRAINT "second_marks_marker_id_enrolments_id_fk" FOREIGN KEY ("marker_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "excuses_enrolment_id_index" ON "excuses" USING btree ("enrolment_id");--> statement-breakpoint
CREATE INDEX "mark_files_file_id_index" ON "mark_files" USING btree ("file_id");--> statement-breakpoint
CREATE INDEX "marker_shares_marker_id_index" ON "marker_shares" USING btree ("marker_id");--> statement-breakpoint
CREATE INDEX "phrases_owner_id_index" ON "phrases" USING btree ("owner_id");--> statement-breakpoint
CREATE UNIQUE INDEX "second_marks_activity_id_enrolment_id_index" ON "second_marks" USING btree ("activity_id","enrolment_id");--> statement-breakpoint
CREATE INDEX "second_marks_marker_id_index" ON "second_marks" USING btree ("marker_id");--> statement-breakpoint
ALTER TABLE "marks" ADD CONSTRAINT "marks_return_by_enrolments_id_fk" FOREIGN KEY ("return_by") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
UPDATE "marks" SET "told_at" = "returned_at" WHERE "returned" IS NOT NULL;
