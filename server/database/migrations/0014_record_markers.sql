CREATE TABLE "record_markers" (
	"seminar_id" uuid NOT NULL,
	"activity_id" uuid NOT NULL,
	"marker_id" uuid NOT NULL,
	"enrolment_id" uuid NOT NULL,
	"seen_at" timestamp with time zone NOT NULL,
	CONSTRAINT "record_markers_activity_id_marker_id_pk" PRIMARY KEY("activity_id","marker_id")
);
--> statement-breakpoint
ALTER TABLE "record_markers" ADD CONSTRAINT "record_markers_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "record_markers" ADD CONSTRAINT "record_markers_activity_id_activities_id_fk" FOREIGN KEY ("activity_id") REFERENCES "public"."activities"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "record_markers" ADD CONSTRAINT "record_markers_marker_id_enrolments_id_fk" FOREIGN KEY ("marker_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "record_markers" ADD CONSTRAINT "record_markers_enrolment_id_enrolments_id_fk" FOREIGN KEY ("enrolment_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;