import type { Actor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { auditTrail } from '#server/database/schema'
import { slicesOf } from '#server/database/slices'

/** Something that was done: its act, what it was done to, and what of it is worth keeping. */
type NotedAct = Pick<typeof auditTrail.$inferInsert, 'act' | 'subjectId' | 'detail'>

/** Notes in the audit trail of a seminar what somebody of it has done, within the transaction in which they did. */
export async function noteActs(
  tx: Db,
  actor: Pick<Actor, 'seminar' | 'enrolment'>,
  now: Date,
  ...acts: readonly NotedAct[]
): Promise<void> {
  const by = { seminarId: actor.seminar.id, actorId: actor.enrolment.id, at: now }
  for (const some of slicesOf(acts)) await tx.insert(auditTrail).values(some.map(act => ({ ...by, ...act })))
}
