import { sql } from 'drizzle-orm'
import type { ActivityActor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import type { MarkView } from '#shared/marking/desk'
import { markedRecords } from './markedRecords'

/**
 * Calculates marks from their stored parts and keeps their points; none while something is left to judge. A held mark
 * that is no longer whole goes back to the desk: what is held can be returned as it stands.
 *
 * @returns the marks as they are now, by student
 */
export async function storePoints(
  tx: Db,
  actor: ActivityActor,
  enrolmentIds: readonly string[],
  now: Date,
): Promise<Map<string, MarkView>> {
  if (enrolmentIds.length === 0) return new Map()
  const records = await markedRecords(tx, actor, enrolmentIds, now, { andFormer: true })
  const calculated = [...records].map(([enrolmentId, { mark }]) => ({
    enrolmentId,
    mark,
    isWhole: mark.criteriaLeft === 0,
    isReopened: mark.criteriaLeft > 0 && mark.state === 'held',
  }))
  const values = calculated.map(({ enrolmentId, mark, isWhole, isReopened }) => ({
    enrolment_id: enrolmentId,
    points: isWhole ? mark.points : null,
    reopened: isReopened,
  }))
  await tx.execute(sql`
    update marks m set points = v.points,
      state = case when v.reopened then 'open' else m.state end,
      held_at = case when v.reopened then null else m.held_at end,
      return_at = case when v.reopened then null else m.return_at end,
      return_by = case when v.reopened then null else m.return_by end
    from jsonb_to_recordset(${JSON.stringify(values)}::jsonb)
      as v(enrolment_id uuid, points integer, reopened boolean)
    where m.activity_id = ${actor.activity.id} and m.enrolment_id = v.enrolment_id`)
  return new Map(
    calculated.map(({ enrolmentId, mark, isReopened }) => [
      enrolmentId,
      isReopened ? { ...mark, state: 'open' as const, returnAt: null } : mark,
    ]),
  )
}
