import { and, asc, eq, sql } from 'drizzle-orm'
import type { Actor, ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { activities, auditTrail, phases, units } from '#server/database/schema'
import { refusedField } from '#server/http/problem'
import { withIdempotency } from '#server/services/idempotency'
import type { ActivityBody } from '#shared/planning/composer'
import { requireCurrent } from './requireCurrent'
import { requireSound, toPhases } from './requireSound'
import { loadBody } from '#server/services/composing/composer'
import { happened } from '#server/services/events'

interface Write {
  readonly baseVersion: number
  readonly opensAt: string
  readonly phases: ActivityBody['phases']
  readonly tell: boolean
}

/** Moves an activity on the plan. Only its times change; a schedule that contradicts itself is refused. */
export const moveActivity = (
  db: Database,
  actor: ActivityActor,
  write: Write & { readonly key: string },
  now: Date,
) => withIdempotency(db, actor.enrolment, write.key, tx => moveWithin(tx, actor, write, now))

/** The same within a transaction. */
export async function moveWithin(tx: Db, actor: ActivityActor, write: Write, now: Date) {
  const row = await requireCurrent(tx, actor, write.baseVersion, now)
  const old = await loadBody(tx, row)
  const body = { ...old, opensAt: write.opensAt, phases: write.phases } as ActivityBody
  if (old.phases.map(p => p.name).join() !== write.phases.map(p => p.name).join())
    throw refusedField('phases', 'otherPhases', 'The phases of this activity have changed. Reload the plan.')
  requireSound(body)
  await tx.delete(phases).where(eq(phases.activityId, row.id))
  await tx.insert(phases).values(
    toPhases(write.phases).map((p, position) => ({
      seminarId: row.seminarId,
      activityId: row.id,
      ...p,
      position,
    })),
  )
  const [after] = await tx
    .update(activities)
    .set({ opensAt: new Date(write.opensAt), version: row.version + 1 })
    .where(eq(activities.id, row.id))
    .returning()
  await tx.insert(auditTrail).values({
    seminarId: row.seminarId,
    actorId: actor.enrolment.id,
    at: now,
    act: 'activityMoved',
    subjectId: row.id,
    detail: {
      from: { opensAt: old.opensAt, phases: old.phases },
      to: { opensAt: write.opensAt, phases: write.phases },
    },
  })
  if (write.tell && after!.state === 'published')
    await happened(
      tx,
      { kind: 'planChanged', activity: after!, seminar: actor.seminar, before: old, after: body },
      now,
    )
  return { version: after!.version, state: after!.state }
}

/** Puts an activity into a unit, before another one; the order of the rest stays. */
export function orderActivity(
  db: Database,
  actor: Actor,
  write: {
    readonly key: string
    readonly activityId: string
    readonly unitId: string | null
    readonly beforeId: string | null
  },
) {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const rows = await tx
      .select({ id: activities.id })
      .from(activities)
      .where(eq(activities.seminarId, actor.seminar.id))
      .orderBy(asc(activities.position), asc(activities.id))
      .for('update')
    const moved = rows.find(r => r.id === write.activityId)
    const [unit] = write.unitId
      ? await tx
          .select()
          .from(units)
          .where(and(eq(units.id, write.unitId), eq(units.seminarId, actor.seminar.id)))
      : [null]
    if (!moved || unit === undefined)
      throw refusedField(
        'activityId',
        'gone',
        'This activity or unit is no longer on the plan. Reload the page.',
      )
    const rest = rows.filter(r => r !== moved)
    const at = write.beforeId ? rest.findIndex(r => r.id === write.beforeId) : rest.length
    const order = [
      ...rest.slice(0, at < 0 ? rest.length : at),
      moved,
      ...rest.slice(at < 0 ? rest.length : at),
    ]
    await tx.execute(sql`
      update activities a set position = v.at - 1
      from unnest(${sql.param(order.map(({ id }) => id))}::uuid[]) with ordinality as v(id, at)
      where a.id = v.id`)
    await tx.update(activities).set({ unitId: write.unitId }).where(eq(activities.id, moved.id))
    return { done: true }
  })
}
