CREATE TABLE "message_rules" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"activity_id" uuid,
	"days_before" integer NOT NULL,
	"at_time" text NOT NULL,
	"subject" text NOT NULL,
	"text" text NOT NULL,
	"made_by" uuid NOT NULL,
	"on" boolean DEFAULT false NOT NULL,
	"on_since" timestamp with time zone,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
CREATE TABLE "message_threads" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"student_id" uuid NOT NULL,
	"started_by" uuid NOT NULL,
	"activity_id" uuid,
	"subject" text NOT NULL,
	"sending_id" uuid NOT NULL,
	"rule_id" uuid,
	"told_at" timestamp with time zone,
	"last_at" timestamp with time zone NOT NULL,
	"staff_seen_at" timestamp with time zone,
	"student_seen_at" timestamp with time zone,
	"made_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "messages" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"thread_id" uuid NOT NULL,
	"author_id" uuid NOT NULL,
	"text" text NOT NULL,
	"words" integer NOT NULL,
	"direct" boolean NOT NULL,
	"at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "closing_answers" (
	"activity_id" uuid NOT NULL,
	"seminar_id" uuid NOT NULL,
	"enrolment_id" uuid NOT NULL,
	"answers" jsonb NOT NULL,
	"handed_in_at" timestamp with time zone NOT NULL,
	CONSTRAINT "closing_answers_activity_id_enrolment_id_pk" PRIMARY KEY("activity_id","enrolment_id")
);
--> statement-breakpoint
CREATE TABLE "closing_rounds" (
	"activity_id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"named" boolean NOT NULL,
	"questions" jsonb NOT NULL,
	"opens_at" timestamp with time zone NOT NULL,
	"closes_at" timestamp with time zone NOT NULL,
	"takers" uuid[] DEFAULT '{}' NOT NULL,
	"urns" jsonb DEFAULT '{}'::jsonb NOT NULL,
	"told_at" timestamp with time zone,
	"version" integer DEFAULT 1 NOT NULL
);
--> statement-breakpoint
ALTER TABLE "message_rules" ADD CONSTRAINT "message_rules_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "message_rules" ADD CONSTRAINT "message_rules_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "message_rules" ADD CONSTRAINT "message_rules_made_by_enrolments_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "message_threads" ADD CONSTRAINT "message_threads_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "message_threads" ADD CONSTRAINT "message_threads_student_id_enrolments_id_fk" FOREIGN KEY ("student_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "message_threads" ADD CONSTRAINT "message_threads_started_by_enrolments_id_fk" FOREIGN KEY ("started_by") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "message_threads" ADD CONSTRAINT "message_threads_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "message_threads" ADD CONSTRAINT "message_threads_rule_id_message_rules_id_fk" FOREIGN KEY ("rule_id") REFERENCES "public"."message_rules"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "messages" ADD CONSTRAINT "messages_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "messages" ADD CONSTRAINT "messages_thread_id_message_threads_id_fk" FOREIGN KEY ("thread_id") REFERENCES "public"."message_threads"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "messages" ADD CONSTRAINT "messages_author_id_enrolments_id_fk" FOREIGN KEY ("author_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "closing_answers" ADD CONSTRAINT "closing_answers_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "closing_answers" ADD CONSTRAINT "closing_answers_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "closing_answers" ADD CONSTRAINT "closing_answers_enrolment_id_enrolments_id_fk" FOREIGN KEY ("enrolment_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "closing_rounds" ADD CONSTRAINT "closing_rounds_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "closing_rounds" ADD CONSTRAINT "closing_rounds_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "message_rules_seminar_id_index" ON "message_rules" USING btree ("seminar_id");--> statement-breakpoint
CREATE INDEX "message_threads_seminar_id_last_at_index" ON "message_threads" USING btree ("seminar_id","last_at");--> statement-breakpoint
CREATE INDEX "message_threads_student_id_index" ON "message_threads" USING btree ("student_id");--> statement-breakpoint
CREATE INDEX "message_threads_sending_id_index" ON "message_threads" USING btree ("sending_id");--> statement-breakpoint
CREATE INDEX "untold_threads" ON "message_threads" USING btree ("made_at") WHERE told_at is null;--> statement-breakpoint
CREATE UNIQUE INDEX "one_message_of_a_rule" ON "message_threads" USING btree ("rule_id","activity_id","student_id") WHERE rule_id is not null;--> statement-breakpoint
CREATE INDEX "messages_thread_id_at_index" ON "messages" USING btree ("thread_id","at");--> statement-breakpoint
CREATE INDEX "messages_author_id_index" ON "messages" USING btree ("author_id");--> statement-breakpoint
CREATE INDEX "closing_answers_enrolment_id_index" ON "closing_answers" USING btree ("enrolment_id");