import { eq, max, sql } from 'drizzle-orm'
import type { Db } from '#server/database/client'
import { lock } from '#server/database/locks'
import { contributions } from '#server/database/schema'

/**
 * The next place among what is shown in an activity. Until the transaction ends nobody else gets one there, so that
 * places become true in their order: a reader who has seen one has seen all before it.
 */
export async function nextSeq(tx: Db, activityId: string): Promise<number> {
  await lock(tx, 'numbering', activityId)
  const [row] = await tx
    .select({ last: max(contributions.seq) })
    .from(contributions)
    .where(eq(contributions.activityId, activityId))
  return (row?.last ?? 0) + 1
}

/** Gives contributions that were brought in from outside their places, in the order of their times, their threads and who opened them. */
export async function numberAll(db: Db): Promise<void> {
  await db.execute(
    sql`update contributions c set seq = o.n
      from (select id, row_number() over (partition by activity_id order by shown_at, id) as n from contributions
      where state in ('shown', 'withdrawn')) o where c.id = o.id`,
  )
  await db.execute(sql`with recursive threads as (
      select c.id, c.id as root, case when e.role in ('student', 'observer') then c.author_id end as opener
        from contributions c join enrolments e on e.id = c.author_id where c.parent_id is null
      union all select c.id, t.root,
        coalesce(t.opener, case when e.role in ('student', 'observer') then c.author_id end) from contributions c
        join threads t on c.parent_id = t.id join enrolments e on e.id = c.author_id
    ) update contributions c set thread_id = t.root, opener_id = t.opener from threads t where c.id = t.id`)
}
