-- A key of two columns says that what a row points to is of the row's own seminar. Checked at the commit, because an archive
-- brings its tables in their own order. Not of rows there are: what was stored before stays.
DO $$
DECLARE
  pair text[];
BEGIN
  FOREACH pair SLICE 1 IN ARRAY ARRAY[
    ['enrolments', 'section_id', 'sections'],
    ['joining_codes', 'section_id', 'sections'],
    ['group_members', 'enrolment_id', 'enrolments'],
    ['group_members', 'group_id', 'groups'],
    ['group_members', 'group_plan_id', 'group_plans'],
    ['groups', 'group_plan_id', 'group_plans'],
    ['activities', 'unit_id', 'units'],
    ['activities', 'category_id', 'categories'],
    ['activities', 'rubric_version_id', 'rubric_versions'],
    ['activities', 'grading_scale_id', 'grading_scales'],
    ['activities', 'spoken_file_id', 'files'],
    ['phases', 'activity_id', 'activities'],
    ['expectations', 'activity_id', 'activities'],
    ['prompts', 'activity_id', 'activities'],
    ['review_rounds', 'activity_id', 'activities'],
    ['closing_rounds', 'activity_id', 'activities'],
    ['message_rules', 'activity_id', 'activities'],
    ['rubric_versions', 'rubric_id', 'rubrics'],
    ['rubric_criteria', 'rubric_version_id', 'rubric_versions'],
    ['rubric_criteria', 'outcome_id', 'outcomes'],
    ['rubric_levels', 'criterion_id', 'rubric_criteria'],
    ['text_versions', 'text_id', 'texts'],
    ['text_versions', 'file_id', 'files'],
    ['wiki_pages', 'activity_id', 'activities'],
    ['wiki_pages', 'parent_id', 'wiki_pages'],
    ['wiki_pages', 'group_id', 'groups'],
    ['page_versions', 'page_id', 'wiki_pages'],
    ['page_comments', 'page_id', 'wiki_pages'],
    ['page_writers', 'page_id', 'wiki_pages'],
    ['contribution_revisions', 'contribution_id', 'contributions'],
    ['contribution_marks', 'contribution_id', 'contributions'],
    ['text_measures', 'contribution_id', 'contributions'],
    ['criterion_marks', 'mark_id', 'marks'],
    ['citations', 'mark_id', 'marks'],
    ['mark_files', 'mark_id', 'marks'],
    ['messages', 'thread_id', 'message_threads'],
    ['message_threads', 'rule_id', 'message_rules'],
    ['receipts', 'enrolment_id', 'enrolments'],
    ['gradebook_views', 'enrolment_id', 'enrolments'],
    ['phrases', 'owner_id', 'enrolments'],
    ['standings', 'enrolment_id', 'enrolments']
  ] LOOP
    IF NOT EXISTS (SELECT FROM pg_constraint WHERE conname = pair[3] || '_within_seminar') THEN
      EXECUTE format('ALTER TABLE %I ADD CONSTRAINT %I UNIQUE (seminar_id, id)', pair[3], pair[3] || '_within_seminar');
    END IF;
    EXECUTE format(
      'ALTER TABLE %I ADD CONSTRAINT %I FOREIGN KEY (seminar_id, %I) REFERENCES %I (seminar_id, id)
        DEFERRABLE INITIALLY DEFERRED NOT VALID',
      pair[1], pair[1] || '_' || pair[2] || '_in_seminar', pair[2], pair[3]
    );
  END LOOP;
END $$;--> statement-breakpoint
-- An activity can be held with other seminars: what people do in it is of their seminar or of its home, and the activity
-- is of that seminar or joined by it.
CREATE FUNCTION require_activity_in_reach() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF NEW.activity_id IS NULL
    OR EXISTS (SELECT FROM activities a WHERE a.id = NEW.activity_id AND a.seminar_id = NEW.seminar_id)
    OR EXISTS (SELECT FROM joint_seminars j WHERE j.activity_id = NEW.activity_id AND j.seminar_id = NEW.seminar_id)
  THEN
    RETURN NULL;
  END IF;
  RAISE EXCEPTION 'activity % is not of seminar %', NEW.activity_id, NEW.seminar_id
    USING ERRCODE = 'foreign_key_violation', CONSTRAINT = TG_NAME, TABLE = TG_TABLE_NAME;
END $$;--> statement-breakpoint
DO $$
DECLARE
  name text;
BEGIN
  FOREACH name IN ARRAY ARRAY[
    'contributions', 'visits', 'marks', 'extensions', 'excuses', 'notices', 'aliases', 'feeds', 'letter_replies',
    'marker_shares', 'second_marks', 'record_markers', 'allocations', 'kept_apart', 'willing', 'annotation_tokens',
    'closing_answers', 'message_threads', 'standings'
  ] LOOP
    EXECUTE format(
      'CREATE CONSTRAINT TRIGGER %I AFTER INSERT OR UPDATE OF seminar_id, activity_id ON %I
        FOR EACH ROW EXECUTE FUNCTION require_activity_in_reach()',
      name || '_activity_in_reach', name
    );
  END LOOP;
END $$;
