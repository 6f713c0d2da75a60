CREATE TABLE "page_comments" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"page_id" uuid NOT NULL,
	"answers" uuid,
	"version_id" uuid,
	"passage" jsonb,
	"writers" uuid[] DEFAULT '{}' NOT NULL,
	"resolved_in" uuid,
	"resolved_by" uuid,
	"resolved_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "page_versions" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"page_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"base" integer NOT NULL,
	"summary" text NOT NULL,
	"words" integer NOT NULL,
	"written" integer NOT NULL,
	"added" integer NOT NULL,
	"removed" integer NOT NULL,
	"moved" integer NOT NULL,
	"restores" integer,
	"origins" jsonb NOT NULL,
	"gone" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "page_writers" (
	"page_id" uuid NOT NULL,
	"enrolment_id" uuid NOT NULL,
	"seminar_id" uuid NOT NULL,
	"seen_at" timestamp with time zone NOT NULL,
	CONSTRAINT "page_writers_page_id_enrolment_id_pk" PRIMARY KEY("page_id","enrolment_id")
);
--> statement-breakpoint
CREATE TABLE "wiki_pages" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"activity_id" uuid NOT NULL,
	"group_id" uuid,
	"title" text NOT NULL,
	"title_key" text NOT NULL,
	"former_keys" text[] DEFAULT '{}' NOT NULL,
	"parent_id" uuid,
	"position" integer NOT NULL,
	"claimed_by" uuid,
	"current_id" uuid,
	"versions" integer DEFAULT 0 NOT NULL,
	"links" text[] DEFAULT '{}' NOT NULL,
	"trial_by" uuid,
	"made_by" uuid NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"removed_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "page_comments" ADD CONSTRAINT "page_comments_id_contributions_id_fk" FOREIGN KEY ("id") REFERENCES "public"."contributions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "page_comments" ADD CONSTRAINT "page_comments_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "page_comments" ADD CONSTRAINT "page_comments_page_id_wiki_pages_id_fk" FOREIGN KEY ("page_id") REFERENCES "public"."wiki_pages"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "page_comments" ADD CONSTRAINT "page_comments_answers_contributions_id_fk" FOREIGN KEY ("answers") REFERENCES "public"."contributions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "page_comments" ADD CONSTRAINT "page_comments_version_id_contributions_id_fk" FOREIGN KEY ("version_id") REFERENCES "public"."contributions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "page_comments" ADD CONSTRAINT "page_comments_resolved_in_contributions_id_fk" FOREIGN KEY ("resolved_in") REFERENCES "public"."contributions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "page_comments" ADD CONSTRAINT "page_comments_resolved_by_enrolments_id_fk" FOREIGN KEY ("resolved_by") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "page_versions" ADD CONSTRAINT "page_versions_id_contributions_id_fk" FOREIGN KEY ("id") REFERENCES "public"."contributions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "page_versions" ADD CONSTRAINT "page_versions_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "page_versions" ADD CONSTRAINT "page_versions_page_id_wiki_pages_id_fk" FOREIGN KEY ("page_id") REFERENCES "public"."wiki_pages"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "page_writers" ADD CONSTRAINT "page_writers_page_id_wiki_pages_id_fk" FOREIGN KEY ("page_id") REFERENCES "public"."wiki_pages"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "page_writers" ADD CONSTRAINT "page_writers_enrolment_id_enrolments_id_fk" FOREIGN KEY ("enrolment_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "page_writers" ADD CONSTRAINT "page_writers_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wiki_pages" ADD CONSTRAINT "wiki_pages_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wiki_pages" ADD CONSTRAINT "wiki_pages_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wiki_pages" ADD CONSTRAINT "wiki_pages_group_id_groups_id_fk" FOREIGN KEY ("group_id") REFERENCES "public"."groups"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wiki_pages" ADD CONSTRAINT "wiki_pages_parent_id_wiki_pages_id_fk" FOREIGN KEY ("parent_id") REFERENCES "public"."wiki_pages"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wiki_pages" ADD CONSTRAINT "wiki_pages_claimed_by_enrolments_id_fk" FOREIGN KEY ("claimed_by") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wiki_pages" ADD CONSTRAINT "wiki_pages_current_id_contributions_id_fk" FOREIGN KEY ("current_id") REFERENCES "public"."contributions"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wiki_pages" ADD CONSTRAINT "wiki_pages_trial_by_enrolments_id_fk" FOREIGN KEY ("trial_by") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "wiki_pages" ADD CONSTRAINT "wiki_pages_made_by_enrolments_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "page_comments_page_id_index" ON "page_comments" USING btree ("page_id");--> statement-breakpoint
CREATE UNIQUE INDEX "page_versions_page_id_number_index" ON "page_versions" USING btree ("page_id","number");--> statement-breakpoint
CREATE INDEX "wiki_pages_activity_id_group_id_index" ON "wiki_pages" USING btree ("activity_id","group_id");--> statement-breakpoint
CREATE UNIQUE INDEX "one_page_of_a_title" ON "wiki_pages" USING btree ("activity_id",coalesce("group_id", "trial_by", '00000000-0000-0000-0000-000000000000'),"title_key") WHERE removed_at is null;