import { and, eq } from 'drizzle-orm'
import { KINDS } from '#core/kinds'
import type { ActivityActor } from '#server/access/seminar'
import type { Database } from '#server/database/client'
import { auditTrail, contributionMarks, marks, type contributions } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { storePoints } from './storePoints'

type ContributionActor = ActivityActor & {
  readonly contribution: typeof contributions.$inferSelect
}

/**
 * Marks one contribution, by points or as done or not, or takes its mark back. Every change is written down; a mark made
 * of such marks is calculated anew. A held one stays held, a returned one is held until its next return.
 */
export async function markContribution(
  db: Database,
  actor: ContributionActor,
  write: { readonly points: number | null; readonly done: boolean | null },
  now: Date,
) {
  const { contribution, activity } = actor
  const { combine } = activity
  if (contribution.state !== 'shown' || (!combine && contribution.type !== KINDS[activity.kind].entryType))
    throw new Problem(409, 'notMarkable', 'Only what is shown can be marked.')
  if (write.points !== null && (!combine || combine.by === 'count'))
    throw refusedField('points', 'notByPoints', 'Contributions are not marked by points here.')
  if (write.done !== null && combine && combine.by !== 'count')
    throw refusedField('done', 'byPoints', 'Contributions are marked by points here.')
  if (write.points !== null && combine && combine.by !== 'count' && write.points > combine.each)
    throw refusedField(
      'points',
      'tooMany',
      `One contribution gets up to ${combine.each / 100} points; ${write.points / 100} is more.`,
    )
  await db.transaction(async tx => {
    const [before] = await tx
      .select()
      .from(contributionMarks)
      .where(eq(contributionMarks.contributionId, contribution.id))
      .for('update')
    if (write.done === null && write.points === null)
      await tx.delete(contributionMarks).where(eq(contributionMarks.contributionId, contribution.id))
    else {
      const mark = { ...write, markedBy: actor.enrolment.id, markedAt: now }
      await tx
        .insert(contributionMarks)
        .values({ seminarId: contribution.seminarId, contributionId: contribution.id, ...mark })
        .onConflictDoUpdate({ target: contributionMarks.contributionId, set: mark })
    }
    await tx.insert(auditTrail).values({
      seminarId: contribution.seminarId,
      actorId: actor.enrolment.id,
      at: now,
      act: 'contributionMarked',
      subjectId: contribution.id,
      detail: { from: before ? { points: before.points, done: before.done } : null, to: write },
    })
    const [mark] = await tx
      .select()
      .from(marks)
      .where(and(eq(marks.activityId, activity.id), eq(marks.enrolmentId, contribution.authorId)))
      .for('update')
    if (!combine || !mark) return
    await tx
      .update(marks)
      .set({ version: mark.version + 1, state: mark.state === 'returned' ? 'held' : mark.state })
      .where(eq(marks.id, mark.id))
    await storePoints(tx, actor, [contribution.authorId], now)
  })
  return { done: true }
}
