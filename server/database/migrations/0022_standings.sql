CREATE TABLE "standing_changes" (
	"id" bigint PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "standing_changes_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 9223372036854775807 START WITH 1 CACHE 1),
	"activity_id" uuid NOT NULL,
	"enrolment_id" uuid,
	"made_in" "xid8" DEFAULT pg_current_xact_id() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "standings" (
	"seminar_id" uuid NOT NULL,
	"activity_id" uuid NOT NULL,
	"enrolment_id" uuid NOT NULL,
	"standing" text DEFAULT 'nothing' NOT NULL,
	"own_standing" text DEFAULT 'nothing' NOT NULL,
	"has_letter" boolean DEFAULT false NOT NULL,
	"shown" integer DEFAULT 0 NOT NULL,
	"words" integer DEFAULT 0 NOT NULL,
	"drafts" integer DEFAULT 0 NOT NULL,
	"first_at" timestamp with time zone,
	"last_at" timestamp with time zone,
	"checks" jsonb DEFAULT '[]'::jsonb NOT NULL,
	"valid_from" timestamp with time zone,
	"valid_until" timestamp with time zone DEFAULT '-infinity',
	CONSTRAINT "standings_activity_id_enrolment_id_pk" PRIMARY KEY("activity_id","enrolment_id"),
	CONSTRAINT "known_standings" CHECK (standing in ('nothing', 'underWay', 'ready', 'held', 'returned') and own_standing in ('nothing', 'underWay', 'ready', 'held', 'returned'))
);
--> statement-breakpoint
ALTER TABLE "standings" ADD CONSTRAINT "standings_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "standings" ADD CONSTRAINT "standings_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "standings" ADD CONSTRAINT "standings_enrolment_id_enrolments_id_fk" FOREIGN KEY ("enrolment_id") REFERENCES "public"."enrolments"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "standing_changes_activity_id_enrolment_id_index" ON "standing_changes" USING btree ("activity_id","enrolment_id");--> statement-breakpoint
CREATE INDEX "standing_changes_made_in_index" ON "standing_changes" USING btree ("made_in");--> statement-breakpoint
CREATE INDEX "standings_enrolment_id_index" ON "standings" USING btree ("enrolment_id");--> statement-breakpoint
CREATE INDEX "standings_seminar_id_index" ON "standings" USING btree ("seminar_id");--> statement-breakpoint
CREATE INDEX "standings_valid_until_index" ON "standings" USING btree ("valid_until");