CREATE TABLE "annotation_tokens" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"enrolment_id" uuid NOT NULL,
	"activity_id" uuid NOT NULL,
	"digest" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "text_versions" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"text_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"file_id" uuid,
	"words" text NOT NULL,
	"parts" jsonb NOT NULL,
	"html" jsonb NOT NULL,
	"cues" jsonb NOT NULL,
	"made_by" uuid NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "texts" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"title" text NOT NULL,
	"credit" text NOT NULL,
	"form" text NOT NULL,
	"version" integer NOT NULL,
	"supplier" jsonb,
	"made_by" uuid NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"archived_at" timestamp with time zone
);
--> statement-breakpoint
ALTER TABLE "annotation_tokens" ADD CONSTRAINT "annotation_tokens_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "annotation_tokens" ADD CONSTRAINT "annotation_tokens_enrolment_id_enrolments_id_fk" FOREIGN KEY ("enrolment_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "annotation_tokens" ADD CONSTRAINT "annotation_tokens_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "text_versions" ADD CONSTRAINT "text_versions_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "text_versions" ADD CONSTRAINT "text_versions_text_id_texts_id_fk" FOREIGN KEY ("text_id") REFERENCES "public"."texts"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "text_versions" ADD CONSTRAINT "text_versions_file_id_files_id_fk" FOREIGN KEY ("file_id") REFERENCES "public"."files"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "text_versions" ADD CONSTRAINT "text_versions_made_by_enrolments_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "texts" ADD CONSTRAINT "texts_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "texts" ADD CONSTRAINT "texts_made_by_enrolments_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "annotation_tokens_digest_index" ON "annotation_tokens" USING btree ("digest");--> statement-breakpoint
CREATE UNIQUE INDEX "annotation_tokens_activity_id_enrolment_id_index" ON "annotation_tokens" USING btree ("activity_id","enrolment_id");--> statement-breakpoint
CREATE UNIQUE INDEX "text_versions_text_id_number_index" ON "text_versions" USING btree ("text_id","number");--> statement-breakpoint
CREATE INDEX "texts_seminar_id_index" ON "texts" USING btree ("seminar_id");