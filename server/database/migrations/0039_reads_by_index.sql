CREATE INDEX "group_members_seminar_id_index" ON "group_members" USING btree ("seminar_id");--> statement-breakpoint
CREATE INDEX "activities_to_publish" ON "activities" USING btree ("opens_at") WHERE state = 'scheduled';--> statement-breakpoint
CREATE INDEX "phases_name_starts_at_index" ON "phases" USING btree ("name","starts_at");--> statement-breakpoint
CREATE INDEX "wiki_pages_current_id_index" ON "wiki_pages" USING btree ("current_id");--> statement-breakpoint
CREATE INDEX "marks_rubric_version_id_index" ON "marks" USING btree ("rubric_version_id");--> statement-breakpoint
CREATE INDEX "marks_to_return" ON "marks" USING btree ("return_at") WHERE return_at is not null;--> statement-breakpoint
CREATE INDEX "marks_to_tell" ON "marks" USING btree ("returned_at") WHERE returned is not null and told_at is null;