-- How many reviews each gives is one number, as an expectation and as what is assigned: where they differ, what is assigned stands.
UPDATE expectations e
SET rule = jsonb_set(e.rule, '{need}', to_jsonb(coalesce((a.settings -> 'review' ->> 'each')::int, 3)))
FROM activities a
WHERE a.id = e.activity_id AND a.kind = 'review' AND e.rule ->> 'kind' = 'reviews'
  AND coalesce(a.settings -> 'review' ->> 'subject', 'work') = 'work'
  AND (e.rule ->> 'need')::int <> coalesce((a.settings -> 'review' ->> 'each')::int, 3);
--> statement-breakpoint
-- Of teammates everyone in the group is reviewed, however many they are.
UPDATE expectations e
SET rule = e.rule || '{"everyone": true}'::jsonb
FROM activities a
WHERE a.id = e.activity_id AND a.kind = 'review' AND e.rule ->> 'kind' = 'reviews'
  AND a.settings -> 'review' ->> 'subject' = 'teammates';
--> statement-breakpoint
-- What is assigned to somebody is what is asked of them, before anything is written.
CREATE OR REPLACE FUNCTION note_allocations() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO standing_changes (activity_id, enrolment_id)
  SELECT DISTINCT c.activity_id, c.author_id FROM touched_rows t JOIN contributions c ON c.id = t.review_id
  UNION
  SELECT DISTINCT t.activity_id, t.reviewer_id FROM touched_rows t;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE OR REPLACE FUNCTION note_changed_allocations() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO standing_changes (activity_id, enrolment_id)
  SELECT DISTINCT c.activity_id, c.author_id FROM new_rows n JOIN old_rows o USING (id)
  JOIN contributions c ON c.id IN (n.review_id, o.review_id)
  WHERE (n.review_id, n.subject_id, n.entry_id) IS DISTINCT FROM (o.review_id, o.subject_id, o.entry_id)
  UNION
  SELECT DISTINCT x.activity_id, x.reviewer_id FROM new_rows n JOIN old_rows o USING (id)
  CROSS JOIN LATERAL (VALUES (n.activity_id, n.reviewer_id), (o.activity_id, o.reviewer_id)) x (activity_id, reviewer_id)
  WHERE (n.reviewer_id, n.subject_id, n.source) IS DISTINCT FROM (o.reviewer_id, o.subject_id, o.source);
  RETURN NULL;
END $$;
