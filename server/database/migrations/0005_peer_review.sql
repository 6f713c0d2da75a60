CREATE TABLE "allocations" (
	"id" uuid PRIMARY KEY DEFAULT gen_random_uuid() NOT NULL,
	"received_id" uuid DEFAULT gen_random_uuid() NOT NULL,
	"seminar_id" uuid NOT NULL,
	"activity_id" uuid NOT NULL,
	"reviewer_id" uuid NOT NULL,
	"subject_id" uuid NOT NULL,
	"entry_id" uuid,
	"source" text NOT NULL,
	"state" text DEFAULT 'owed' NOT NULL,
	"review_id" uuid,
	"opened_at" timestamp with time zone,
	"handed_in_at" timestamp with time zone,
	"kept_by" uuid,
	"set_aside_by" uuid,
	"set_aside_reason" text,
	"helpful" integer,
	"answer_doc" jsonb,
	"answer_html" text,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "kept_apart" (
	"activity_id" uuid NOT NULL,
	"seminar_id" uuid NOT NULL,
	"one_id" uuid NOT NULL,
	"other_id" uuid NOT NULL,
	CONSTRAINT "kept_apart_activity_id_one_id_other_id_pk" PRIMARY KEY("activity_id","one_id","other_id")
);
--> statement-breakpoint
CREATE TABLE "review_rounds" (
	"activity_id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"seed" integer NOT NULL,
	"dealt_at" timestamp with time zone,
	"released_at" timestamp with time zone,
	"released_by" uuid,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "willing" (
	"activity_id" uuid NOT NULL,
	"seminar_id" uuid NOT NULL,
	"enrolment_id" uuid NOT NULL,
	"more" integer NOT NULL,
	CONSTRAINT "willing_activity_id_enrolment_id_pk" PRIMARY KEY("activity_id","enrolment_id")
);
--> statement-breakpoint
ALTER TABLE "files" ADD COLUMN "begun_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "marks" ADD COLUMN "factor" integer;--> statement-breakpoint
ALTER TABLE "marks" ADD COLUMN "reviewing" integer;--> statement-breakpoint
ALTER TABLE "marks" ADD COLUMN "taken_from" text;--> statement-breakpoint
ALTER TABLE "allocations" ADD CONSTRAINT "allocations_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "allocations" ADD CONSTRAINT "allocations_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "allocations" ADD CONSTRAINT "allocations_reviewer_id_enrolments_id_fk" FOREIGN KEY ("reviewer_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "allocations" ADD CONSTRAINT "allocations_subject_id_enrolments_id_fk" FOREIGN KEY ("subject_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "allocations" ADD CONSTRAINT "allocations_entry_id_contributions_id_fk" FOREIGN KEY ("entry_id") REFERENCES "public"."contributions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "allocations" ADD CONSTRAINT "allocations_review_id_contributions_id_fk" FOREIGN KEY ("review_id") REFERENCES "public"."contributions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "allocations" ADD CONSTRAINT "allocations_kept_by_enrolments_id_fk" FOREIGN KEY ("kept_by") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "allocations" ADD CONSTRAINT "allocations_set_aside_by_enrolments_id_fk" FOREIGN KEY ("set_aside_by") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "kept_apart" ADD CONSTRAINT "kept_apart_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "kept_apart" ADD CONSTRAINT "kept_apart_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "kept_apart" ADD CONSTRAINT "kept_apart_one_id_enrolments_id_fk" FOREIGN KEY ("one_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "kept_apart" ADD CONSTRAINT "kept_apart_other_id_enrolments_id_fk" FOREIGN KEY ("other_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "review_rounds" ADD CONSTRAINT "review_rounds_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "review_rounds" ADD CONSTRAINT "review_rounds_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "review_rounds" ADD CONSTRAINT "review_rounds_released_by_enrolments_id_fk" FOREIGN KEY ("released_by") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "willing" ADD CONSTRAINT "willing_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "willing" ADD CONSTRAINT "willing_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "willing" ADD CONSTRAINT "willing_enrolment_id_enrolments_id_fk" FOREIGN KEY ("enrolment_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "allocations_activity_id_index" ON "allocations" USING btree ("activity_id");--> statement-breakpoint
CREATE INDEX "allocations_reviewer_id_activity_id_index" ON "allocations" USING btree ("reviewer_id","activity_id");--> statement-breakpoint
CREATE INDEX "allocations_entry_id_index" ON "allocations" USING btree ("entry_id");--> statement-breakpoint
CREATE INDEX "allocations_review_id_index" ON "allocations" USING btree ("review_id");--> statement-breakpoint
CREATE UNIQUE INDEX "one_review_of_a_work" ON "allocations" USING btree ("activity_id","reviewer_id","entry_id");--> statement-breakpoint
CREATE UNIQUE INDEX "one_review_of_a_teammate" ON "allocations" USING btree ("activity_id","reviewer_id","subject_id") WHERE entry_id is null;--> statement-breakpoint
CREATE UNIQUE INDEX "allocations_received_id_index" ON "allocations" USING btree ("received_id");