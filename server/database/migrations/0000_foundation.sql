CREATE TABLE "enrolments" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	"section_id" uuid,
	"role" text NOT NULL,
	"state" text DEFAULT 'active' NOT NULL
);
--> statement-breakpoint
CREATE TABLE "persons" (
	"id" uuid PRIMARY KEY NOT NULL,
	"email" text NOT NULL,
	"name" text NOT NULL,
	"given_name" text NOT NULL,
	"family_name" text NOT NULL,
	"password_hash" text,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "persons_email_unique" UNIQUE("email")
);
--> statement-breakpoint
CREATE TABLE "sections" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"title" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "seminars" (
	"id" uuid PRIMARY KEY NOT NULL,
	"code" text NOT NULL,
	"title" text NOT NULL,
	"college" text NOT NULL,
	"time_zone" text NOT NULL,
	"first_day" text NOT NULL,
	"weeks" integer NOT NULL,
	"usual_due_time" text DEFAULT '23:59' NOT NULL
);
--> statement-breakpoint
CREATE TABLE "sessions" (
	"digest" text PRIMARY KEY NOT NULL,
	"person_id" uuid NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"revoked_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "sign_in_attempts" (
	"id" uuid PRIMARY KEY NOT NULL,
	"email" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "activities" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"unit_id" uuid,
	"category_id" uuid,
	"kind" text NOT NULL,
	"title" text NOT NULL,
	"summary" text NOT NULL,
	"brief" jsonb NOT NULL,
	"brief_html" text NOT NULL,
	"state" text DEFAULT 'draft' NOT NULL,
	"settings" jsonb NOT NULL,
	"opens_at" timestamp with time zone NOT NULL,
	"points" integer,
	"point_step" integer DEFAULT 50 NOT NULL,
	"late_rule" jsonb NOT NULL,
	"rubric_version_id" uuid,
	"practice" boolean DEFAULT false NOT NULL,
	"position" integer NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "categories" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"title" text NOT NULL,
	"weight_percent" integer NOT NULL,
	"position" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "expectations" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"activity_id" uuid NOT NULL,
	"rule" jsonb NOT NULL,
	"needed" boolean DEFAULT true NOT NULL,
	"position" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "extensions" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"activity_id" uuid NOT NULL,
	"enrolment_id" uuid NOT NULL,
	"due_at" timestamp with time zone NOT NULL,
	"reason" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "phases" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"activity_id" uuid NOT NULL,
	"name" text NOT NULL,
	"starts_at" timestamp with time zone NOT NULL,
	"ends_at" timestamp with time zone NOT NULL,
	"position" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "rubric_criteria" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"rubric_version_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"title" text NOT NULL,
	"max" integer NOT NULL,
	"weight" integer DEFAULT 1 NOT NULL,
	"scope" text DEFAULT 'own' NOT NULL,
	"suggest_from" text
);
--> statement-breakpoint
CREATE TABLE "rubric_levels" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"criterion_id" uuid NOT NULL,
	"position" integer NOT NULL,
	"title" text NOT NULL,
	"points" integer NOT NULL,
	"descriptor" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "rubric_versions" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"rubric_id" uuid NOT NULL,
	"version" integer NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "rubrics" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"title" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "units" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"title" text NOT NULL,
	"from_week" integer NOT NULL,
	"to_week" integer NOT NULL,
	"position" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "contribution_revisions" (
	"seminar_id" uuid NOT NULL,
	"contribution_id" uuid NOT NULL,
	"version" integer NOT NULL,
	"doc" jsonb NOT NULL,
	"html" text NOT NULL,
	"text" text NOT NULL,
	"words" integer NOT NULL,
	"replaced_at" timestamp with time zone NOT NULL,
	CONSTRAINT "contribution_revisions_contribution_id_version_pk" PRIMARY KEY("contribution_id","version")
);
--> statement-breakpoint
CREATE TABLE "contributions" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"activity_id" uuid NOT NULL,
	"author_id" uuid NOT NULL,
	"type" text NOT NULL,
	"parent_id" uuid,
	"state" text NOT NULL,
	"doc" jsonb NOT NULL,
	"html" text NOT NULL,
	"text" text NOT NULL,
	"words" integer NOT NULL,
	"detail" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL,
	"shown_at" timestamp with time zone,
	"edited_at" timestamp with time zone,
	"withdrawn_at" timestamp with time zone,
	"version" integer DEFAULT 1 NOT NULL,
	CONSTRAINT "shown_has_a_time" CHECK (state not in ('shown', 'withdrawn') or shown_at is not null)
);
--> statement-breakpoint
CREATE TABLE "nods" (
	"seminar_id" uuid NOT NULL,
	"contribution_id" uuid NOT NULL,
	"enrolment_id" uuid NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "nods_contribution_id_enrolment_id_pk" PRIMARY KEY("contribution_id","enrolment_id")
);
--> statement-breakpoint
CREATE TABLE "receipts" (
	"enrolment_id" uuid NOT NULL,
	"key" uuid NOT NULL,
	"seminar_id" uuid NOT NULL,
	"answer" jsonb NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "receipts_enrolment_id_key_pk" PRIMARY KEY("enrolment_id","key")
);
--> statement-breakpoint
CREATE TABLE "visits" (
	"seminar_id" uuid NOT NULL,
	"activity_id" uuid NOT NULL,
	"enrolment_id" uuid NOT NULL,
	"seen_until" timestamp with time zone NOT NULL,
	CONSTRAINT "visits_activity_id_enrolment_id_pk" PRIMARY KEY("activity_id","enrolment_id")
);
--> statement-breakpoint
CREATE TABLE "audit_trail" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"actor_id" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"act" text NOT NULL,
	"subject_id" uuid NOT NULL,
	"detail" jsonb DEFAULT '{}'::jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "citations" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"mark_id" uuid NOT NULL,
	"criterion_id" uuid NOT NULL,
	"contribution_id" uuid NOT NULL,
	"exact" text NOT NULL,
	"start" integer NOT NULL,
	"position" integer NOT NULL
);
--> statement-breakpoint
CREATE TABLE "criterion_marks" (
	"seminar_id" uuid NOT NULL,
	"mark_id" uuid NOT NULL,
	"criterion_id" uuid NOT NULL,
	"level_id" uuid NOT NULL,
	"points" integer NOT NULL,
	CONSTRAINT "criterion_marks_mark_id_criterion_id_pk" PRIMARY KEY("mark_id","criterion_id")
);
--> statement-breakpoint
CREATE TABLE "marks" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"activity_id" uuid NOT NULL,
	"enrolment_id" uuid NOT NULL,
	"rubric_version_id" uuid NOT NULL,
	"state" text DEFAULT 'open' NOT NULL,
	"points" integer,
	"letter" jsonb NOT NULL,
	"letter_text" text NOT NULL,
	"marker_note" text DEFAULT '' NOT NULL,
	"late_waived" boolean DEFAULT false NOT NULL,
	"marked_by" uuid NOT NULL,
	"saved_at" timestamp with time zone NOT NULL,
	"held_at" timestamp with time zone,
	"returned_at" timestamp with time zone,
	"returned" jsonb,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
ALTER TABLE "enrolments" ADD CONSTRAINT "enrolments_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "enrolments" ADD CONSTRAINT "enrolments_person_id_persons_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."persons"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "enrolments" ADD CONSTRAINT "enrolments_section_id_sections_id_fk" FOREIGN KEY ("section_id") REFERENCES "public"."sections"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sections" ADD CONSTRAINT "sections_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sessions" ADD CONSTRAINT "sessions_person_id_persons_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."persons"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "activities" ADD CONSTRAINT "activities_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "activities" ADD CONSTRAINT "activities_unit_id_units_id_fk" FOREIGN KEY ("unit_id") REFERENCES "public"."units"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "activities" ADD CONSTRAINT "activities_category_id_categories_id_fk" FOREIGN KEY ("category_id") REFERENCES "public"."categories"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "activities" ADD CONSTRAINT "activities_rubric_version_id_rubric_versions_id_fk" FOREIGN KEY ("rubric_version_id") REFERENCES "public"."rubric_versions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "categories" ADD CONSTRAINT "categories_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "expectations" ADD CONSTRAINT "expectations_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "expectations" ADD CONSTRAINT "expectations_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "extensions" ADD CONSTRAINT "extensions_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "extensions" ADD CONSTRAINT "extensions_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "extensions" ADD CONSTRAINT "extensions_enrolment_id_enrolments_id_fk" FOREIGN KEY ("enrolment_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "phases" ADD CONSTRAINT "phases_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "phases" ADD CONSTRAINT "phases_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rubric_criteria" ADD CONSTRAINT "rubric_criteria_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rubric_criteria" ADD CONSTRAINT "rubric_criteria_rubric_version_id_rubric_versions_id_fk" FOREIGN KEY ("rubric_version_id") REFERENCES "public"."rubric_versions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rubric_levels" ADD CONSTRAINT "rubric_levels_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rubric_levels" ADD CONSTRAINT "rubric_levels_criterion_id_rubric_criteria_id_fk" FOREIGN KEY ("criterion_id") REFERENCES "public"."rubric_criteria"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rubric_versions" ADD CONSTRAINT "rubric_versions_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rubric_versions" ADD CONSTRAINT "rubric_versions_rubric_id_rubrics_id_fk" FOREIGN KEY ("rubric_id") REFERENCES "public"."rubrics"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "rubrics" ADD CONSTRAINT "rubrics_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "units" ADD CONSTRAINT "units_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "contribution_revisions" ADD CONSTRAINT "contribution_revisions_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "contribution_revisions" ADD CONSTRAINT "contribution_revisions_contribution_id_contributions_id_fk" FOREIGN KEY ("contribution_id") REFERENCES "public"."contributions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "contributions" ADD CONSTRAINT "contributions_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "contributions" ADD CONSTRAINT "contributions_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "contributions" ADD CONSTRAINT "contributions_author_id_enrolments_id_fk" FOREIGN KEY ("author_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "contributions" ADD CONSTRAINT "contributions_parent_id_contributions_id_fk" FOREIGN KEY ("parent_id") REFERENCES "public"."contributions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "nods" ADD CONSTRAINT "nods_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "nods" ADD CONSTRAINT "nods_contribution_id_contributions_id_fk" FOREIGN KEY ("contribution_id") REFERENCES "public"."contributions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "nods" ADD CONSTRAINT "nods_enrolment_id_enrolments_id_fk" FOREIGN KEY ("enrolment_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "receipts" ADD CONSTRAINT "receipts_enrolment_id_enrolments_id_fk" FOREIGN KEY ("enrolment_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "receipts" ADD CONSTRAINT "receipts_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "visits" ADD CONSTRAINT "visits_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "visits" ADD CONSTRAINT "visits_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "visits" ADD CONSTRAINT "visits_enrolment_id_enrolments_id_fk" FOREIGN KEY ("enrolment_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "audit_trail" ADD CONSTRAINT "audit_trail_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "audit_trail" ADD CONSTRAINT "audit_trail_actor_id_enrolments_id_fk" FOREIGN KEY ("actor_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "citations" ADD CONSTRAINT "citations_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "citations" ADD CONSTRAINT "citations_mark_id_marks_id_fk" FOREIGN KEY ("mark_id") REFERENCES "public"."marks"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "citations" ADD CONSTRAINT "citations_criterion_id_rubric_criteria_id_fk" FOREIGN KEY ("criterion_id") REFERENCES "public"."rubric_criteria"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "citations" ADD CONSTRAINT "citations_contribution_id_contributions_id_fk" FOREIGN KEY ("contribution_id") REFERENCES "public"."contributions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "criterion_marks" ADD CONSTRAINT "criterion_marks_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "criterion_marks" ADD CONSTRAINT "criterion_marks_mark_id_marks_id_fk" FOREIGN KEY ("mark_id") REFERENCES "public"."marks"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "criterion_marks" ADD CONSTRAINT "criterion_marks_criterion_id_rubric_criteria_id_fk" FOREIGN KEY ("criterion_id") REFERENCES "public"."rubric_criteria"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "criterion_marks" ADD CONSTRAINT "criterion_marks_level_id_rubric_levels_id_fk" FOREIGN KEY ("level_id") REFERENCES "public"."rubric_levels"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "marks" ADD CONSTRAINT "marks_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "marks" ADD CONSTRAINT "marks_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "marks" ADD CONSTRAINT "marks_enrolment_id_enrolments_id_fk" FOREIGN KEY ("enrolment_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "marks" ADD CONSTRAINT "marks_rubric_version_id_rubric_versions_id_fk" FOREIGN KEY ("rubric_version_id") REFERENCES "public"."rubric_versions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "marks" ADD CONSTRAINT "marks_marked_by_enrolments_id_fk" FOREIGN KEY ("marked_by") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "enrolments_seminar_id_person_id_index" ON "enrolments" USING btree ("seminar_id","person_id");--> statement-breakpoint
CREATE INDEX "enrolments_person_id_index" ON "enrolments" USING btree ("person_id");--> statement-breakpoint
CREATE INDEX "sections_seminar_id_index" ON "sections" USING btree ("seminar_id");--> statement-breakpoint
CREATE INDEX "sessions_person_id_index" ON "sessions" USING btree ("person_id");--> statement-breakpoint
CREATE INDEX "sign_in_attempts_email_at_index" ON "sign_in_attempts" USING btree ("email","at");--> statement-breakpoint
CREATE INDEX "activities_seminar_id_index" ON "activities" USING btree ("seminar_id");--> statement-breakpoint
CREATE INDEX "categories_seminar_id_index" ON "categories" USING btree ("seminar_id");--> statement-breakpoint
CREATE INDEX "expectations_activity_id_index" ON "expectations" USING btree ("activity_id");--> statement-breakpoint
CREATE UNIQUE INDEX "extensions_activity_id_enrolment_id_index" ON "extensions" USING btree ("activity_id","enrolment_id");--> statement-breakpoint
CREATE INDEX "phases_activity_id_index" ON "phases" USING btree ("activity_id");--> statement-breakpoint
CREATE INDEX "rubric_criteria_rubric_version_id_index" ON "rubric_criteria" USING btree ("rubric_version_id");--> statement-breakpoint
CREATE INDEX "rubric_levels_criterion_id_index" ON "rubric_levels" USING btree ("criterion_id");--> statement-breakpoint
CREATE UNIQUE INDEX "rubric_versions_rubric_id_version_index" ON "rubric_versions" USING btree ("rubric_id","version");--> statement-breakpoint
CREATE INDEX "rubrics_seminar_id_index" ON "rubrics" USING btree ("seminar_id");--> statement-breakpoint
CREATE INDEX "units_seminar_id_index" ON "units" USING btree ("seminar_id");--> statement-breakpoint
CREATE INDEX "contributions_activity_id_state_shown_at_index" ON "contributions" USING btree ("activity_id","state","shown_at");--> statement-breakpoint
CREATE INDEX "contributions_author_id_activity_id_index" ON "contributions" USING btree ("author_id","activity_id");--> statement-breakpoint
CREATE INDEX "contributions_parent_id_index" ON "contributions" USING btree ("parent_id");--> statement-breakpoint
CREATE UNIQUE INDEX "one_draft_per_place" ON "contributions" USING btree ("activity_id","author_id",coalesce("parent_id", '00000000-0000-0000-0000-000000000000')) WHERE state = 'draft';--> statement-breakpoint
CREATE INDEX "audit_trail_seminar_id_at_index" ON "audit_trail" USING btree ("seminar_id","at");--> statement-breakpoint
CREATE INDEX "audit_trail_subject_id_index" ON "audit_trail" USING btree ("subject_id");--> statement-breakpoint
CREATE INDEX "citations_mark_id_index" ON "citations" USING btree ("mark_id");--> statement-breakpoint
CREATE UNIQUE INDEX "marks_activity_id_enrolment_id_index" ON "marks" USING btree ("activity_id","enrolment_id");--> statement-breakpoint
CREATE INDEX "marks_enrolment_id_index" ON "marks" USING btree ("enrolment_id");