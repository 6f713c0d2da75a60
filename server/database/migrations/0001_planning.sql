CREATE TABLE "group_members" (
	"seminar_id" uuid NOT NULL,
	"group_plan_id" uuid NOT NULL,
	"group_id" uuid NOT NULL,
	"enrolment_id" uuid NOT NULL,
	"since" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "group_members_group_plan_id_enrolment_id_pk" PRIMARY KEY("group_plan_id","enrolment_id")
);
--> statement-breakpoint
CREATE TABLE "group_plans" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"title" text NOT NULL,
	"rules" jsonb NOT NULL,
	"self_join" boolean DEFAULT false NOT NULL,
	"most" integer,
	"position" integer DEFAULT 0 NOT NULL,
	"version" integer DEFAULT 1 NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "groups" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"group_plan_id" uuid NOT NULL,
	"title" text NOT NULL,
	"position" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "joining_codes" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"code" text NOT NULL,
	"role" text DEFAULT 'student' NOT NULL,
	"section_id" uuid,
	"expires_at" timestamp with time zone NOT NULL,
	"most" integer NOT NULL,
	"used" integer DEFAULT 0 NOT NULL,
	"revoked_at" timestamp with time zone,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "joining_codes_code_unique" UNIQUE("code")
);
--> statement-breakpoint
CREATE TABLE "password_links" (
	"digest" text PRIMARY KEY NOT NULL,
	"person_id" uuid NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"used_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "files" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"made_by" uuid NOT NULL,
	"name" text NOT NULL,
	"type" text NOT NULL,
	"size" integer NOT NULL,
	"transcript" text,
	"bytes" "bytea" NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "grading_scales" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"title" text NOT NULL,
	"bands" jsonb NOT NULL,
	"position" integer DEFAULT 0 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "outcomes" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"identifier" text NOT NULL,
	"code" text NOT NULL,
	"statement" text NOT NULL,
	"position" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "prompts" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"activity_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"doc" jsonb NOT NULL,
	"html" text NOT NULL,
	"release_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "mailroom_messages" (
	"id" uuid PRIMARY KEY NOT NULL,
	"from" text NOT NULL,
	"to" jsonb NOT NULL,
	"subject" text NOT NULL,
	"text" text NOT NULL,
	"received_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "mails" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid,
	"person_id" uuid,
	"key" text NOT NULL,
	"to" text NOT NULL,
	"subject" text NOT NULL,
	"text" text NOT NULL,
	"state" text DEFAULT 'waiting' NOT NULL,
	"tries" integer DEFAULT 0 NOT NULL,
	"last_error" text,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"queued_at" timestamp with time zone,
	"sent_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "notices" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"enrolment_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"activity_id" uuid,
	"text" text NOT NULL,
	"detail" text DEFAULT '' NOT NULL,
	"made_at" timestamp with time zone NOT NULL,
	"seen_at" timestamp with time zone,
	"mailed_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "enrolments" ADD COLUMN "student_number" text;--> statement-breakpoint
ALTER TABLE "enrolments" ADD COLUMN "joined_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "persons" ADD COLUMN "founds_seminars" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "persons" ADD COLUMN "mail_choice" text DEFAULT 'atOnce' NOT NULL;--> statement-breakpoint
ALTER TABLE "persons" ADD COLUMN "calendar_secret" text;--> statement-breakpoint
ALTER TABLE "persons" ADD COLUMN "practice_of" uuid;--> statement-breakpoint
ALTER TABLE "sections" ADD COLUMN "position" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "seminars" ADD COLUMN "usual_due_weekday" integer DEFAULT 7 NOT NULL;--> statement-breakpoint
ALTER TABLE "seminars" ADD COLUMN "breaks" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "seminars" ADD COLUMN "pace" jsonb DEFAULT '{"readingWordsPerMinute":220,"writingWordsPerMinute":12,"markingMinutesPerStudent":3}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "seminars" ADD COLUMN "student_hours_limit" integer DEFAULT 6 NOT NULL;--> statement-breakpoint
ALTER TABLE "seminars" ADD COLUMN "marking_hours_limit" integer DEFAULT 8 NOT NULL;--> statement-breakpoint
ALTER TABLE "seminars" ADD COLUMN "presence_gap_days" integer DEFAULT 14 NOT NULL;--> statement-breakpoint
ALTER TABLE "seminars" ADD COLUMN "state" text DEFAULT 'active' NOT NULL;--> statement-breakpoint
ALTER TABLE "seminars" ADD COLUMN "made_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "seminars" ADD COLUMN "version" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "sessions" ADD COLUMN "acting_as" uuid;--> statement-breakpoint
ALTER TABLE "activities" ADD COLUMN "scale" text DEFAULT 'points' NOT NULL;--> statement-breakpoint
ALTER TABLE "activities" ADD COLUMN "grading_scale_id" uuid;--> statement-breakpoint
ALTER TABLE "activities" ADD COLUMN "pass_percent" integer;--> statement-breakpoint
ALTER TABLE "activities" ADD COLUMN "group_mark" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "activities" ADD COLUMN "return_together" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "activities" ADD COLUMN "audience" jsonb DEFAULT '{"kind":"everyone"}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "activities" ADD COLUMN "starter" jsonb;--> statement-breakpoint
ALTER TABLE "activities" ADD COLUMN "starter_html" text;--> statement-breakpoint
ALTER TABLE "activities" ADD COLUMN "spoken_file_id" uuid;--> statement-breakpoint
ALTER TABLE "activities" ADD COLUMN "tell_on_publish" boolean DEFAULT true NOT NULL;--> statement-breakpoint
ALTER TABLE "activities" ADD COLUMN "published_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "activities" ADD COLUMN "locked_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "activities" ADD COLUMN "is_template" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "rubric_criteria" ADD COLUMN "outcome_id" uuid;--> statement-breakpoint
ALTER TABLE "rubric_levels" ADD COLUMN "points_from" integer;--> statement-breakpoint
ALTER TABLE "rubrics" ADD COLUMN "identifier" uuid NOT NULL;--> statement-breakpoint
ALTER TABLE "rubrics" ADD COLUMN "archived_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "group_members" ADD CONSTRAINT "group_members_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "group_members" ADD CONSTRAINT "group_members_group_plan_id_group_plans_id_fk" FOREIGN KEY ("group_plan_id") REFERENCES "public"."group_plans"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "group_members" ADD CONSTRAINT "group_members_group_id_groups_id_fk" FOREIGN KEY ("group_id") REFERENCES "public"."groups"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "group_members" ADD CONSTRAINT "group_members_enrolment_id_enrolments_id_fk" FOREIGN KEY ("enrolment_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "group_plans" ADD CONSTRAINT "group_plans_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "groups" ADD CONSTRAINT "groups_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "groups" ADD CONSTRAINT "groups_group_plan_id_group_plans_id_fk" FOREIGN KEY ("group_plan_id") REFERENCES "public"."group_plans"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "joining_codes" ADD CONSTRAINT "joining_codes_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "joining_codes" ADD CONSTRAINT "joining_codes_section_id_sections_id_fk" FOREIGN KEY ("section_id") REFERENCES "public"."sections"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "password_links" ADD CONSTRAINT "password_links_person_id_persons_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."persons"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "files" ADD CONSTRAINT "files_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "files" ADD CONSTRAINT "files_made_by_enrolments_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "grading_scales" ADD CONSTRAINT "grading_scales_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "outcomes" ADD CONSTRAINT "outcomes_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "prompts" ADD CONSTRAINT "prompts_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "prompts" ADD CONSTRAINT "prompts_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "mails" ADD CONSTRAINT "mails_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "mails" ADD CONSTRAINT "mails_person_id_persons_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."persons"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "notices" ADD CONSTRAINT "notices_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "notices" ADD CONSTRAINT "notices_enrolment_id_enrolments_id_fk" FOREIGN KEY ("enrolment_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "notices" ADD CONSTRAINT "notices_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "group_members_group_id_index" ON "group_members" USING btree ("group_id");--> statement-breakpoint
CREATE INDEX "group_members_enrolment_id_index" ON "group_members" USING btree ("enrolment_id");--> statement-breakpoint
CREATE INDEX "group_plans_seminar_id_index" ON "group_plans" USING btree ("seminar_id");--> statement-breakpoint
CREATE INDEX "groups_group_plan_id_index" ON "groups" USING btree ("group_plan_id");--> statement-breakpoint
CREATE INDEX "joining_codes_seminar_id_index" ON "joining_codes" USING btree ("seminar_id");--> statement-breakpoint
CREATE INDEX "files_seminar_id_index" ON "files" USING btree ("seminar_id");--> statement-breakpoint
CREATE INDEX "grading_scales_seminar_id_index" ON "grading_scales" USING btree ("seminar_id");--> statement-breakpoint
CREATE UNIQUE INDEX "outcomes_seminar_id_identifier_index" ON "outcomes" USING btree ("seminar_id","identifier");--> statement-breakpoint
CREATE INDEX "prompts_activity_id_index" ON "prompts" USING btree ("activity_id");--> statement-breakpoint
CREATE INDEX "mailroom_messages_received_at_index" ON "mailroom_messages" USING btree ("received_at");--> statement-breakpoint
CREATE UNIQUE INDEX "mails_key_index" ON "mails" USING btree ("key");--> statement-breakpoint
CREATE INDEX "mails_state_index" ON "mails" USING btree ("state");--> statement-breakpoint
CREATE INDEX "notices_enrolment_id_made_at_index" ON "notices" USING btree ("enrolment_id","made_at");--> statement-breakpoint
CREATE INDEX "notices_mailed_at_index" ON "notices" USING btree ("mailed_at");--> statement-breakpoint
ALTER TABLE "persons" ADD CONSTRAINT "persons_practice_of_persons_id_fk" FOREIGN KEY ("practice_of") REFERENCES "public"."persons"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_acting_as_enrolments_id_fk" FOREIGN KEY ("acting_as") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "activities" ADD CONSTRAINT "activities_grading_scale_id_grading_scales_id_fk" FOREIGN KEY ("grading_scale_id") REFERENCES "public"."grading_scales"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "activities" ADD CONSTRAINT "activities_spoken_file_id_files_id_fk" FOREIGN KEY ("spoken_file_id") REFERENCES "public"."files"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rubric_criteria" ADD CONSTRAINT "rubric_criteria_outcome_id_outcomes_id_fk" FOREIGN KEY ("outcome_id") REFERENCES "public"."outcomes"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "contributions_words" ON "contributions" USING gin (to_tsvector('english', "text"));--> statement-breakpoint
ALTER TABLE "persons" ADD CONSTRAINT "persons_calendarSecret_unique" UNIQUE("calendar_secret");