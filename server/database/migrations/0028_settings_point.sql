ALTER TABLE "activities" ADD COLUMN "group_plan_id" uuid GENERATED ALWAYS AS ((audience ->> 'groupPlanId')::uuid) STORED;--> statement-breakpoint
ALTER TABLE "activities" ADD COLUMN "text_id" uuid GENERATED ALWAYS AS ((settings -> 'reading' ->> 'textId')::uuid) STORED;--> statement-breakpoint
CREATE INDEX "activities_group_plan_id_index" ON "activities" USING btree ("group_plan_id");--> statement-breakpoint
CREATE INDEX "activities_text_id_index" ON "activities" USING btree ("text_id");--> statement-breakpoint
ALTER TABLE group_plans ADD CONSTRAINT group_plans_within_seminar UNIQUE (seminar_id, id);--> statement-breakpoint
ALTER TABLE texts ADD CONSTRAINT texts_within_seminar UNIQUE (seminar_id, id);--> statement-breakpoint
-- Checked at the commit, because an archive brings its tables in their own order. Not of rows there are: what was stored before stays.
ALTER TABLE activities ADD CONSTRAINT activities_group_plan_in_seminar FOREIGN KEY (seminar_id, group_plan_id)
  REFERENCES group_plans (seminar_id, id) DEFERRABLE INITIALLY DEFERRED NOT VALID;--> statement-breakpoint
ALTER TABLE activities ADD CONSTRAINT activities_text_in_seminar FOREIGN KEY (seminar_id, text_id)
  REFERENCES texts (seminar_id, id) DEFERRABLE INITIALLY DEFERRED NOT VALID;--> statement-breakpoint
ALTER TABLE contributions ADD CONSTRAINT contributions_thread FOREIGN KEY (thread_id)
  REFERENCES contributions (id) DEFERRABLE INITIALLY DEFERRED NOT VALID;
