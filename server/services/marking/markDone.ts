import { eq } from 'drizzle-orm'
import { KINDS } from '#core/contributing/kinds'
import type { Actor, ActivityRow } from '#server/access/seminar'
import type { Database } from '#server/database/client'
import { auditTrail, contributionMarks, type contributions } from '#server/database/schema'
import { Problem } from '#server/http/problem'

/** Marks one entry as done or not done, or takes the mark back. Every change is written down. */
export async function markDone(db: Database, actor: Actor & { readonly activity: ActivityRow, readonly contribution: typeof contributions.$inferSelect }, done: boolean | null, now: Date) {
  const { contribution, activity } = actor
  if (contribution.type !== KINDS[activity.kind].entryType || contribution.state !== 'shown') throw new Problem(409, 'notMarkable', 'Only an entry that is shown can be marked.')
  await db.transaction(async (tx) => {
    const [before] = await tx.select().from(contributionMarks).where(eq(contributionMarks.contributionId, contribution.id)).for('update')
    if (done === null) await tx.delete(contributionMarks).where(eq(contributionMarks.contributionId, contribution.id))
    else {
      const mark = { done, markedBy: actor.enrolment.id, markedAt: now }
      await tx.insert(contributionMarks).values({ seminarId: contribution.seminarId, contributionId: contribution.id, ...mark }).onConflictDoUpdate({ target: contributionMarks.contributionId, set: mark })
    }
    await tx.insert(auditTrail).values({ seminarId: contribution.seminarId, actorId: actor.enrolment.id, at: now, act: 'marked an answer', subjectId: contribution.id, detail: { from: before?.done ?? null, to: done } })
  })
  return { done: true }
}
