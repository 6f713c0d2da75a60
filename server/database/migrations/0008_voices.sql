CREATE TABLE "text_measures" (
	"contribution_id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"version" integer NOT NULL,
	"sentences" integer NOT NULL,
	"syllables" integer NOT NULL
);
--> statement-breakpoint
ALTER TABLE "text_measures" ADD CONSTRAINT "text_measures_contribution_id_contributions_id_fk" FOREIGN KEY ("contribution_id") REFERENCES "public"."contributions"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "text_measures" ADD CONSTRAINT "text_measures_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;