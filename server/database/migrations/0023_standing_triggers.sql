-- What a student's standing is calculated from writes here what it changed: see docs/decisions/0065.
-- A row without an enrolment concerns everybody in the activity.

CREATE FUNCTION standing_counts(state text, words integer) RETURNS boolean LANGUAGE sql IMMUTABLE
AS $$ SELECT state = 'shown' OR (state = 'draft' AND words > 0) $$;
--> statement-breakpoint
CREATE FUNCTION note_new_contributions() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO standing_changes (activity_id, enrolment_id)
  SELECT DISTINCT activity_id, author_id FROM new_rows WHERE standing_counts(state, words);
  INSERT INTO standing_changes (activity_id)
  SELECT DISTINCT n.activity_id FROM new_rows n
  JOIN activities a ON a.id = n.activity_id AND a.settings ->> 'threads' = 'staff'
  JOIN enrolments e ON e.id = n.author_id AND e.role IN ('instructor', 'assistant')
  WHERE n.parent_id IS NULL AND n.state = 'shown';
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE FUNCTION note_changed_contributions() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO standing_changes (activity_id, enrolment_id)
  SELECT n.activity_id, n.author_id FROM new_rows n JOIN old_rows o USING (id)
  WHERE (standing_counts(n.state, n.words) OR standing_counts(o.state, o.words))
    AND ((n.activity_id, n.author_id, n.state, n.words > 0, n.detail ? 'imported')
      IS DISTINCT FROM (o.activity_id, o.author_id, o.state, o.words > 0, o.detail ? 'imported')
      OR n.state = 'shown'
        AND (n.type, n.shown_at, n.words, n.prompt_id, n.sources, n.figures, n.parent_id, n.detail -> 'handIn', n.detail -> 'note')
        IS DISTINCT FROM (o.type, o.shown_at, o.words, o.prompt_id, o.sources, o.figures, o.parent_id, o.detail -> 'handIn', o.detail -> 'note'))
  UNION
  SELECT o.activity_id, o.author_id FROM new_rows n JOIN old_rows o USING (id)
  WHERE standing_counts(o.state, o.words)
    AND (n.activity_id, n.author_id) IS DISTINCT FROM (o.activity_id, o.author_id)
  UNION
  -- a page that was saved again after a comment of somebody else's
  SELECT saved.activity_id, saved.author_id FROM new_rows n JOIN old_rows o USING (id)
  JOIN page_comments c ON c.id = n.id
  JOIN page_versions v ON v.page_id = c.page_id
  JOIN contributions saved ON saved.id = v.id
  WHERE (n.state, n.shown_at, n.author_id) IS DISTINCT FROM (o.state, o.shown_at, o.author_id)
  UNION
  -- whoever answers is answered by a person: who that is, is the author of what they answer
  SELECT answer.activity_id, answer.author_id FROM new_rows n JOIN old_rows o USING (id)
  JOIN contributions answer ON answer.parent_id = n.id
  WHERE n.author_id IS DISTINCT FROM o.author_id;
  INSERT INTO standing_changes (activity_id)
  SELECT DISTINCT n.activity_id FROM new_rows n JOIN old_rows o USING (id)
  JOIN activities a ON a.id = n.activity_id AND a.settings ->> 'threads' = 'staff'
  JOIN enrolments e ON e.id IN (n.author_id, o.author_id) AND e.role IN ('instructor', 'assistant')
  WHERE (n.parent_id IS NULL OR o.parent_id IS NULL)
    AND (n.activity_id, n.author_id, n.state, n.parent_id) IS DISTINCT FROM (o.activity_id, o.author_id, o.state, o.parent_id);
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE FUNCTION note_removed_contributions() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO standing_changes (activity_id, enrolment_id)
  SELECT DISTINCT activity_id, author_id FROM old_rows WHERE standing_counts(state, words);
  INSERT INTO standing_changes (activity_id)
  SELECT DISTINCT o.activity_id FROM old_rows o
  JOIN activities a ON a.id = o.activity_id AND a.settings ->> 'threads' = 'staff'
  WHERE o.parent_id IS NULL AND o.state = 'shown';
  RETURN NULL;
END $$;
--> statement-breakpoint
-- rows that have the id of a contribution: a version of a page
CREATE FUNCTION note_pages_versions() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO standing_changes (activity_id, enrolment_id)
  SELECT DISTINCT c.activity_id, c.author_id FROM touched_rows v JOIN contributions c ON c.id = v.id;
  RETURN NULL;
END $$;
--> statement-breakpoint
-- a comment on a page concerns whoever wrote it, and all who wrote on the page
CREATE FUNCTION note_page_comments() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO standing_changes (activity_id, enrolment_id)
  SELECT c.activity_id, c.author_id FROM touched_rows t JOIN contributions c ON c.id = t.id
  UNION
  SELECT c.activity_id, c.author_id FROM touched_rows t
  JOIN page_versions v ON v.page_id = t.page_id JOIN contributions c ON c.id = v.id;
  RETURN NULL;
END $$;
--> statement-breakpoint
-- whose page it is counts for all who wrote or commented on it
CREATE FUNCTION note_claimed_pages() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO standing_changes (activity_id, enrolment_id)
  SELECT c.activity_id, c.author_id FROM new_rows n JOIN old_rows o USING (id)
  JOIN page_versions v ON v.page_id = n.id JOIN contributions c ON c.id = v.id
  WHERE n.claimed_by IS DISTINCT FROM o.claimed_by
  UNION
  SELECT c.activity_id, c.author_id FROM new_rows n JOIN old_rows o USING (id)
  JOIN page_comments p ON p.page_id = n.id JOIN contributions c ON c.id = p.id
  WHERE n.claimed_by IS DISTINCT FROM o.claimed_by;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE FUNCTION note_allocations() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO standing_changes (activity_id, enrolment_id)
  SELECT DISTINCT c.activity_id, c.author_id FROM touched_rows t JOIN contributions c ON c.id = t.review_id;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE FUNCTION note_changed_allocations() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO standing_changes (activity_id, enrolment_id)
  SELECT DISTINCT c.activity_id, c.author_id FROM new_rows n JOIN old_rows o USING (id)
  JOIN contributions c ON c.id IN (n.review_id, o.review_id)
  WHERE (n.review_id, n.subject_id, n.entry_id) IS DISTINCT FROM (o.review_id, o.subject_id, o.entry_id);
  RETURN NULL;
END $$;
--> statement-breakpoint
-- rows that name an activity and a student
CREATE FUNCTION note_pairs() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO standing_changes (activity_id, enrolment_id)
  SELECT DISTINCT activity_id, enrolment_id FROM touched_rows;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE FUNCTION note_changed_marks() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO standing_changes (activity_id, enrolment_id)
  SELECT n.activity_id, n.enrolment_id FROM new_rows n JOIN old_rows o USING (id)
  WHERE (n.activity_id, n.enrolment_id, n.state, n.returned IS NULL)
    IS DISTINCT FROM (o.activity_id, o.enrolment_id, o.state, o.returned IS NULL)
  UNION
  SELECT o.activity_id, o.enrolment_id FROM new_rows n JOIN old_rows o USING (id)
  WHERE (n.activity_id, n.enrolment_id) IS DISTINCT FROM (o.activity_id, o.enrolment_id);
  RETURN NULL;
END $$;
--> statement-breakpoint
-- rows of a plan: they concern everybody in the activity
CREATE FUNCTION note_plans() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO standing_changes (activity_id) SELECT DISTINCT activity_id FROM touched_rows;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE FUNCTION note_new_activities() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO standing_changes (activity_id) SELECT id FROM new_rows WHERE NOT is_template;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE FUNCTION note_changed_activities() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO standing_changes (activity_id)
  SELECT n.id FROM new_rows n JOIN old_rows o USING (id)
  WHERE (n.seminar_id, n.kind, n.settings, n.opens_at, n.is_template)
    IS DISTINCT FROM (o.seminar_id, o.kind, o.settings, o.opens_at, o.is_template);
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE FUNCTION note_changed_seminars() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO standing_changes (activity_id)
  SELECT a.id FROM new_rows n JOIN old_rows o USING (id) JOIN activities a ON a.seminar_id = n.id AND NOT a.is_template
  WHERE (n.time_zone, n.first_day, n.weeks, n.breaks) IS DISTINCT FROM (o.time_zone, o.first_day, o.weeks, o.breaks);
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE FUNCTION activities_of_seminar(seminar uuid) RETURNS SETOF uuid LANGUAGE sql STABLE AS $$
  SELECT id FROM activities WHERE seminar_id = seminar AND NOT is_template
  UNION
  SELECT activity_id FROM joint_seminars WHERE seminar_id = seminar
$$;
--> statement-breakpoint
CREATE FUNCTION note_new_enrolments() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO standing_changes (activity_id, enrolment_id)
  SELECT activity, n.id FROM new_rows n, activities_of_seminar(n.seminar_id) activity WHERE n.role = 'student';
  RETURN NULL;
END $$;
--> statement-breakpoint
-- an answer to staff is no answer to a classmate
CREATE FUNCTION note_changed_enrolments() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO standing_changes (activity_id)
  SELECT DISTINCT activity FROM new_rows n JOIN old_rows o USING (id), activities_of_seminar(n.seminar_id) activity
  WHERE (n.role, n.seminar_id) IS DISTINCT FROM (o.role, o.seminar_id);
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER standing_insert AFTER INSERT ON contributions REFERENCING NEW TABLE AS new_rows FOR EACH STATEMENT EXECUTE FUNCTION note_new_contributions();
--> statement-breakpoint
CREATE TRIGGER standing_update AFTER UPDATE ON contributions REFERENCING OLD TABLE AS old_rows NEW TABLE AS new_rows FOR EACH STATEMENT EXECUTE FUNCTION note_changed_contributions();
--> statement-breakpoint
CREATE TRIGGER standing_delete AFTER DELETE ON contributions REFERENCING OLD TABLE AS old_rows FOR EACH STATEMENT EXECUTE FUNCTION note_removed_contributions();
--> statement-breakpoint
CREATE TRIGGER standing_update AFTER UPDATE ON wiki_pages REFERENCING OLD TABLE AS old_rows NEW TABLE AS new_rows FOR EACH STATEMENT EXECUTE FUNCTION note_claimed_pages();
--> statement-breakpoint
CREATE TRIGGER standing_update AFTER UPDATE ON marks REFERENCING OLD TABLE AS old_rows NEW TABLE AS new_rows FOR EACH STATEMENT EXECUTE FUNCTION note_changed_marks();
--> statement-breakpoint
CREATE TRIGGER standing_insert AFTER INSERT ON activities REFERENCING NEW TABLE AS new_rows FOR EACH STATEMENT EXECUTE FUNCTION note_new_activities();
--> statement-breakpoint
CREATE TRIGGER standing_update AFTER UPDATE ON activities REFERENCING OLD TABLE AS old_rows NEW TABLE AS new_rows FOR EACH STATEMENT EXECUTE FUNCTION note_changed_activities();
--> statement-breakpoint
CREATE TRIGGER standing_update AFTER UPDATE ON seminars REFERENCING OLD TABLE AS old_rows NEW TABLE AS new_rows FOR EACH STATEMENT EXECUTE FUNCTION note_changed_seminars();
--> statement-breakpoint
CREATE TRIGGER standing_insert AFTER INSERT ON enrolments REFERENCING NEW TABLE AS new_rows FOR EACH STATEMENT EXECUTE FUNCTION note_new_enrolments();
--> statement-breakpoint
CREATE TRIGGER standing_update AFTER UPDATE ON enrolments REFERENCING OLD TABLE AS old_rows NEW TABLE AS new_rows FOR EACH STATEMENT EXECUTE FUNCTION note_changed_enrolments();
--> statement-breakpoint
CREATE TRIGGER standing_insert AFTER INSERT ON page_versions REFERENCING NEW TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_pages_versions();
--> statement-breakpoint
CREATE TRIGGER standing_update AFTER UPDATE ON page_versions REFERENCING NEW TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_pages_versions();
--> statement-breakpoint
CREATE TRIGGER standing_delete AFTER DELETE ON page_versions REFERENCING OLD TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_pages_versions();
--> statement-breakpoint
CREATE TRIGGER standing_insert AFTER INSERT ON page_comments REFERENCING NEW TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_page_comments();
--> statement-breakpoint
CREATE TRIGGER standing_update AFTER UPDATE ON page_comments REFERENCING NEW TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_page_comments();
--> statement-breakpoint
CREATE TRIGGER standing_delete AFTER DELETE ON page_comments REFERENCING OLD TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_page_comments();
--> statement-breakpoint
CREATE TRIGGER standing_insert AFTER INSERT ON allocations REFERENCING NEW TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_allocations();
--> statement-breakpoint
CREATE TRIGGER standing_update AFTER UPDATE ON allocations REFERENCING OLD TABLE AS old_rows NEW TABLE AS new_rows FOR EACH STATEMENT EXECUTE FUNCTION note_changed_allocations();
--> statement-breakpoint
CREATE TRIGGER standing_delete AFTER DELETE ON allocations REFERENCING OLD TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_allocations();
--> statement-breakpoint
CREATE TRIGGER standing_insert AFTER INSERT ON extensions REFERENCING NEW TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_pairs();
--> statement-breakpoint
CREATE TRIGGER standing_update AFTER UPDATE ON extensions REFERENCING NEW TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_pairs();
--> statement-breakpoint
CREATE TRIGGER standing_delete AFTER DELETE ON extensions REFERENCING OLD TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_pairs();
--> statement-breakpoint
CREATE TRIGGER standing_insert AFTER INSERT ON marks REFERENCING NEW TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_pairs();
--> statement-breakpoint
CREATE TRIGGER standing_delete AFTER DELETE ON marks REFERENCING OLD TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_pairs();
--> statement-breakpoint
CREATE TRIGGER standing_insert AFTER INSERT ON phases REFERENCING NEW TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_plans();
--> statement-breakpoint
CREATE TRIGGER standing_update AFTER UPDATE ON phases REFERENCING NEW TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_plans();
--> statement-breakpoint
CREATE TRIGGER standing_delete AFTER DELETE ON phases REFERENCING OLD TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_plans();
--> statement-breakpoint
CREATE TRIGGER standing_insert AFTER INSERT ON expectations REFERENCING NEW TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_plans();
--> statement-breakpoint
CREATE TRIGGER standing_update AFTER UPDATE ON expectations REFERENCING NEW TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_plans();
--> statement-breakpoint
CREATE TRIGGER standing_delete AFTER DELETE ON expectations REFERENCING OLD TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_plans();
--> statement-breakpoint
CREATE TRIGGER standing_insert AFTER INSERT ON prompts REFERENCING NEW TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_plans();
--> statement-breakpoint
CREATE TRIGGER standing_update AFTER UPDATE ON prompts REFERENCING NEW TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_plans();
--> statement-breakpoint
CREATE TRIGGER standing_delete AFTER DELETE ON prompts REFERENCING OLD TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_plans();
--> statement-breakpoint
CREATE TRIGGER standing_insert AFTER INSERT ON joint_seminars REFERENCING NEW TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_plans();
--> statement-breakpoint
CREATE TRIGGER standing_update AFTER UPDATE ON joint_seminars REFERENCING NEW TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_plans();
--> statement-breakpoint
CREATE TRIGGER standing_delete AFTER DELETE ON joint_seminars REFERENCING OLD TABLE AS touched_rows FOR EACH STATEMENT EXECUTE FUNCTION note_plans();
--> statement-breakpoint
INSERT INTO standing_changes (activity_id) SELECT id FROM activities WHERE NOT is_template;
