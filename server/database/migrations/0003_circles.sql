ALTER TABLE "contributions" ADD COLUMN "opener_id" uuid;--> statement-breakpoint
ALTER TABLE "contributions" ADD CONSTRAINT "contributions_opener_id_enrolments_id_fk" FOREIGN KEY ("opener_id") REFERENCES "public"."enrolments"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
WITH RECURSIVE branch AS (
  SELECT c.id, CASE WHEN e.role = 'student' OR e.role = 'observer' THEN c.author_id END AS opener
  FROM contributions c JOIN enrolments e ON e.id = c.author_id WHERE c.parent_id IS NULL
  UNION ALL
  SELECT c.id, coalesce(b.opener, CASE WHEN e.role = 'student' OR e.role = 'observer' THEN c.author_id END)
  FROM branch b JOIN contributions c ON c.parent_id = b.id JOIN enrolments e ON e.id = c.author_id
)
UPDATE contributions SET opener_id = branch.opener FROM branch WHERE branch.id = contributions.id AND branch.opener IS NOT NULL;
