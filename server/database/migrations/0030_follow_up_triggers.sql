-- What an activity needs is made in the transaction of the change (docs/decisions/0069): these changes of who
-- takes part, and of who reviews whom, were not noted so far.

CREATE FUNCTION note_group_members() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO standing_changes (activity_id)
  SELECT DISTINCT a.id FROM touched_rows t JOIN activities a ON a.group_plan_id = t.group_plan_id AND NOT a.is_template;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER standing_insert AFTER INSERT ON group_members REFERENCING NEW TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_group_members();
--> statement-breakpoint
CREATE TRIGGER standing_update AFTER UPDATE ON group_members REFERENCING NEW TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_group_members();
--> statement-breakpoint
CREATE TRIGGER standing_delete AFTER DELETE ON group_members REFERENCING OLD TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_group_members();
--> statement-breakpoint
CREATE TRIGGER standing_insert AFTER INSERT ON review_rounds REFERENCING NEW TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_plans();
--> statement-breakpoint
CREATE TRIGGER standing_update AFTER UPDATE ON review_rounds REFERENCING NEW TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_plans();
--> statement-breakpoint
CREATE OR REPLACE FUNCTION note_changed_activities() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO standing_changes (activity_id)
  SELECT n.id FROM new_rows n JOIN old_rows o USING (id)
  WHERE (n.seminar_id, n.kind, n.settings, n.opens_at, n.is_template, n.audience)
    IS DISTINCT FROM (o.seminar_id, o.kind, o.settings, o.opens_at, o.is_template, o.audience);
  RETURN NULL;
END $$;
--> statement-breakpoint
-- an answer to staff is no answer to a classmate; whoever leaves or changes section takes part elsewhere
CREATE OR REPLACE FUNCTION note_changed_enrolments() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO standing_changes (activity_id)
  SELECT DISTINCT activity FROM new_rows n JOIN old_rows o USING (id), activities_of_seminar(n.seminar_id) activity
  WHERE (n.role, n.seminar_id) IS DISTINCT FROM (o.role, o.seminar_id);
  INSERT INTO standing_changes (activity_id, enrolment_id)
  SELECT DISTINCT activity, n.id FROM new_rows n JOIN old_rows o USING (id), activities_of_seminar(n.seminar_id) activity
  WHERE n.role = 'student' AND (n.role, n.seminar_id) IS NOT DISTINCT FROM (o.role, o.seminar_id)
    AND (n.state, n.section_id) IS DISTINCT FROM (o.state, o.section_id);
  RETURN NULL;
END $$;
--> statement-breakpoint
-- what was made at the first look so far is made for what is there
INSERT INTO standing_changes (activity_id) SELECT id FROM activities WHERE NOT is_template;
