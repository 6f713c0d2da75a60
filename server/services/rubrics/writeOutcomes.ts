import { and, count, eq, max, sql } from 'drizzle-orm'
import { nothingHere, type Actor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { criterionOutcomes, outcomes } from '#server/database/schema'
import { Problem } from '#server/http/problem'
import { noteActs } from '#server/services/auditTrail'
import { withIdempotency } from '#server/services/idempotency'
import type { OutcomeView } from '#shared/marking/rubric'
import type { OutcomeAdd, OutcomeWrite } from '#shared/marking/outcomes'

/** Adds a learning outcome at the end of the seminar's list. Its CASE identifier is its id. */
export const addOutcome = (db: Database, actor: Actor, write: OutcomeAdd, now: Date): Promise<OutcomeView> =>
  withIdempotency(db, actor.enrolment, write.key, async tx => {
    const seminarId = actor.seminar.id
    const [last] = await tx
      .select({ position: max(outcomes.position) })
      .from(outcomes)
      .where(eq(outcomes.seminarId, seminarId))
    const [row] = await tx
      .insert(outcomes)
      .values({
        seminarId,
        identifier: crypto.randomUUID(),
        code: write.code,
        statement: write.statement,
        position: (last?.position ?? -1) + 1,
      })
      .returning()
    await noteActs(tx, actor, now, { act: 'outcomeAdded', subjectId: row!.id, detail: {} })
    return { ...viewOf(row!), criteria: 0 }
  })

/**
 * Words a learning outcome anew, retires it or takes it up again. Retired, it is offered for criteria no more; what it is
 * linked to, and what was judged by that, stay.
 *
 * @throws {Problem} 409 with the outcome as it is now where somebody else has changed it since `baseVersion`
 */
export const changeOutcome = (
  db: Database,
  actor: Actor,
  outcomeId: string,
  write: OutcomeWrite,
  now: Date,
): Promise<OutcomeView> =>
  withIdempotency(db, actor.enrolment, write.key, async tx => {
    const isThis = and(eq(outcomes.id, outcomeId), eq(outcomes.seminarId, actor.seminar.id))
    const [before] = await tx.select().from(outcomes).where(isThis).for('update')
    if (!before) throw nothingHere()
    if (before.version !== write.baseVersion)
      throw new Problem(
        409,
        'changedMeanwhile',
        'Someone else has changed this outcome meanwhile. Yours is kept in the field; theirs stands beside it.',
        { theirs: await counted(tx, before) },
      )
    const { code, statement, retired } = write
    const [after] = await tx
      .update(outcomes)
      .set({
        code,
        statement,
        retiredAt: retired ? (before.retiredAt ?? now) : null,
        version: sql`${outcomes.version} + 1`,
      })
      .where(isThis)
      .returning()
    await noteActs(tx, actor, now, {
      act: 'outcomeChanged',
      subjectId: outcomeId,
      detail: {
        from: { code: before.code, statement: before.statement, retired: before.retiredAt !== null },
        to: { code, statement, retired },
      },
    })
    return counted(tx, after!)
  })

async function counted(tx: Db, row: typeof outcomes.$inferSelect): Promise<OutcomeView> {
  const [linked] = await tx
    .select({ n: count() })
    .from(criterionOutcomes)
    .where(eq(criterionOutcomes.outcomeId, row.id))
  return { ...viewOf(row), criteria: linked!.n }
}

/** An outcome as the library shows it, without how many criteria are linked to it. */
export const viewOf = ({
  id,
  identifier,
  code,
  statement,
  version,
  retiredAt,
}: typeof outcomes.$inferSelect): Omit<OutcomeView, 'criteria'> => ({
  id,
  identifier,
  code,
  statement,
  version,
  retired: retiredAt !== null,
})
