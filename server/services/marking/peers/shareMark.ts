import { and, eq, sql } from 'drizzle-orm'
import { noteActs } from '#server/services/auditTrail'
import type { ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { activities } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { requireReview } from '#server/kinds'
import { lockMarks, type StoredMark } from '#server/services/marking/lockMarks'
import { storePoints } from '#server/services/marking/storePoints'
import { withIdempotency } from '#server/services/idempotency'
import type { TakeAnswer } from '#shared/marking/peers'

/**
 * Shares a group's mark among its members by factors: the points of the group's criteria, or, where there are none, all
 * points, are multiplied for each. The instructor decides; marks already returned are not touched.
 */
export function shareMark(
  db: Database,
  actor: ActivityActor,
  write: {
    readonly key: string
    readonly factors: ReadonlyArray<{ readonly enrolmentId: string; readonly factor: number | null }>
  },
  now: Date,
): Promise<TakeAnswer> {
  const settings = requireReview(actor.activity)
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const [target] = settings.sharesOf
      ? await tx
          .select()
          .from(activities)
          .where(
            and(eq(activities.id, settings.sharesOf), eq(activities.seminarId, actor.activity.seminarId)),
          )
      : []
    if (!target)
      throw new Problem(
        409,
        'noTarget',
        'No activity is named whose group mark is to be shared. Name it in the plan of this review.',
      )
    const [least, most] = [Math.round(settings.bounds.least * 100), Math.round(settings.bounds.most * 100)]
    for (const { factor } of write.factors)
      if (factor !== null && (factor < least || factor > most))
        throw refusedField(
          'factors',
          'outOfBounds',
          `Shares go from ${least / 100} to ${most / 100} here; ${factor / 100} is outside.`,
        )
    const factorOf = new Map(write.factors.map(f => [f.enrolmentId, f.factor]))
    const stored = await lockMarks(tx, target.id, [...factorOf.keys()])
    const changed = [...stored.values()].filter(m => m.factor !== factorOf.get(m.enrolmentId))
    await storeFactors(tx, actor, changed, factorOf, now)
    await storePoints(
      tx,
      { ...actor, activity: target },
      changed.map(m => m.enrolmentId),
      now,
    )
    const wanted = [...factorOf.keys()]
    return {
      taken: wanted.filter(id => stored.has(id)),
      left: wanted
        .filter(id => !stored.has(id))
        .map(enrolmentId => ({ enrolmentId, why: 'There is no mark to share yet.' })),
    }
  })
}

/** A returned mark that is changed is held again; the student keeps the letter they have until the next return. */
async function storeFactors(
  tx: Db,
  actor: ActivityActor,
  changed: readonly StoredMark[],
  factorOf: ReadonlyMap<string, number | null>,
  now: Date,
): Promise<void> {
  if (changed.length === 0) return
  const values = changed.map(({ id, enrolmentId }) => ({ id, factor: factorOf.get(enrolmentId) ?? null }))
  await tx.execute(sql`
    update marks m set factor = v.factor, version = m.version + 1, saved_at = ${now.toISOString()},
      state = case when m.state = 'returned' then 'held' else m.state end
    from jsonb_to_recordset(${JSON.stringify(values)}::jsonb) as v(id uuid, factor integer)
    where m.id = v.id`)
  await noteActs(
    tx,
    actor,
    now,
    ...changed.map(({ id, enrolmentId, factor }) => ({
      act: 'groupMarkShared' as const,
      subjectId: id,
      detail: { from: factor, to: factorOf.get(enrolmentId) ?? null },
    })),
  )
}
