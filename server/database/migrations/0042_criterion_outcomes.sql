CREATE TABLE "criterion_outcomes" (
	"id" uuid PRIMARY KEY NOT NULL,
	"seminar_id" uuid NOT NULL,
	"criterion_id" uuid NOT NULL,
	"outcome_id" uuid NOT NULL
);
--> statement-breakpoint
ALTER TABLE "criterion_outcomes" ADD CONSTRAINT "criterion_outcomes_seminar_id_seminars_id_fk" FOREIGN KEY ("seminar_id") REFERENCES "public"."seminars"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "criterion_outcomes" ADD CONSTRAINT "criterion_outcomes_criterion_id_rubric_criteria_id_fk" FOREIGN KEY ("criterion_id") REFERENCES "public"."rubric_criteria"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "criterion_outcomes" ADD CONSTRAINT "criterion_outcomes_outcome_id_outcomes_id_fk" FOREIGN KEY ("outcome_id") REFERENCES "public"."outcomes"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "criterion_outcomes_criterion_id_outcome_id_index" ON "criterion_outcomes" USING btree ("criterion_id","outcome_id");--> statement-breakpoint
CREATE INDEX "criterion_outcomes_outcome_id_index" ON "criterion_outcomes" USING btree ("outcome_id");--> statement-breakpoint
-- as in 0029: what a row points to is of the row's own seminar, checked at the commit
ALTER TABLE "criterion_outcomes" ADD CONSTRAINT "criterion_outcomes_criterion_id_in_seminar" FOREIGN KEY ("seminar_id","criterion_id") REFERENCES "rubric_criteria" ("seminar_id","id") DEFERRABLE INITIALLY DEFERRED;--> statement-breakpoint
ALTER TABLE "criterion_outcomes" ADD CONSTRAINT "criterion_outcomes_outcome_id_in_seminar" FOREIGN KEY ("seminar_id","outcome_id") REFERENCES "outcomes" ("seminar_id","id") DEFERRABLE INITIALLY DEFERRED;--> statement-breakpoint
INSERT INTO "criterion_outcomes" ("id", "seminar_id", "criterion_id", "outcome_id")
SELECT gen_random_uuid(), c."seminar_id", c."id", o."id"
FROM "rubric_criteria" c JOIN "outcomes" o ON o."id" = c."outcome_id" AND o."seminar_id" = c."seminar_id";--> statement-breakpoint
SET CONSTRAINTS ALL IMMEDIATE;--> statement-breakpoint
ALTER TABLE "rubric_criteria" DROP CONSTRAINT "rubric_criteria_outcome_id_outcomes_id_fk";--> statement-breakpoint
ALTER TABLE "rubric_criteria" DROP COLUMN "outcome_id";