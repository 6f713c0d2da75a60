ALTER TABLE "allocations" ADD COLUMN "not_done" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "allocations" ADD COLUMN "set_aside_told" boolean DEFAULT false NOT NULL;--> statement-breakpoint
-- Whether a review counts as done is part of what its reviewer's standing is calculated from.
CREATE OR REPLACE FUNCTION note_changed_allocations() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  INSERT INTO standing_changes (activity_id, enrolment_id)
  SELECT DISTINCT c.activity_id, c.author_id FROM new_rows n JOIN old_rows o USING (id)
  JOIN contributions c ON c.id IN (n.review_id, o.review_id)
  WHERE (n.review_id, n.subject_id, n.entry_id, n.not_done) IS DISTINCT FROM (o.review_id, o.subject_id, o.entry_id, o.not_done)
  UNION
  SELECT DISTINCT x.activity_id, x.reviewer_id FROM new_rows n JOIN old_rows o USING (id)
  CROSS JOIN LATERAL (VALUES (n.activity_id, n.reviewer_id), (o.activity_id, o.reviewer_id)) x (activity_id, reviewer_id)
  WHERE (n.reviewer_id, n.subject_id, n.source) IS DISTINCT FROM (o.reviewer_id, o.subject_id, o.source);
  RETURN NULL;
END $$;
