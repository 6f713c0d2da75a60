import { sql } from 'drizzle-orm'
import { noteActs } from '#server/services/auditTrail'
import { plainText, type RichNode } from '#core/contributing/richText'
import { worthOf } from '#core/marking/showMark'
import type { ActivityActor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { marks } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { lockMarks, type StoredMark } from '#server/services/marking/lockMarks'
import { emptyMark } from '#server/services/marking/mark'
import { storePoints } from '#server/services/marking/storePoints'

/** Points set for one student in place of what was calculated; null takes them off again. */
export interface PointsSet {
  readonly enrolmentId: string
  readonly was: number | null // hundredths, as they stood where they were set
  readonly points: number | null
  readonly reason: string
}

/**
 * Sets points of so many students, all or none: each is held until it is returned; a returned mark is held again and its
 * student keeps what they were given. One set of statements, however many.
 *
 * @throws {Problem} when points are outside what there is to get, lack their reason, or stand otherwise by now
 */
export async function writePoints(
  tx: Db,
  actor: ActivityActor,
  sets: readonly PointsSet[],
  now: Date,
): Promise<void> {
  if (sets.length === 0) return
  for (const set of sets) requireFits(actor, set)
  const before = await lockMarks(
    tx,
    actor.activity.id,
    sets.map(s => s.enrolmentId),
  )
  for (const set of sets) requireUnchanged(before.get(set.enrolmentId), set)
  const ids = new Map([
    ...[...before].map(([enrolmentId, { id }]) => [enrolmentId, id] as const),
    ...(await insertMarks(
      tx,
      actor,
      sets.filter(s => !before.has(s.enrolmentId)),
      now,
    )),
  ])
  await updateMarks(
    tx,
    actor,
    sets.filter(s => before.has(s.enrolmentId)),
    now,
  )
  await noteActs(
    tx,
    actor,
    now,
    ...sets.map(({ enrolmentId, points, reason }) => ({
      act: 'markPointsSet' as const,
      subjectId: ids.get(enrolmentId)!,
      detail: { from: before.get(enrolmentId)?.overridePoints ?? null, to: points, reason },
    })),
  )
  const calculated = await storePoints(
    tx,
    actor,
    sets.map(s => s.enrolmentId),
    now,
  )
  await setStates(
    tx,
    sets.flatMap(({ enrolmentId, points }) => {
      const stored = before.get(enrolmentId)
      if (!stored) return []
      const { criteriaLeft } = calculated.get(enrolmentId)!
      // whole again it is held; without points it goes back to the desk
      const isOpen = criteriaLeft > 0 || (stored.state === 'open' && points === null)
      return [{ id: stored.id, state: isOpen ? 'open' : 'held' }]
    }),
    now,
  )
}

function requireFits({ activity }: ActivityActor, { points, reason }: PointsSet): void {
  if (points === null) return
  const max = worthOf(activity)
  if (max <= 0)
    throw refusedField(
      'points',
      'worthNothing',
      'This activity is worth no points, so there are none to set. Give it points in its plan first.',
    )
  if (points > max)
    throw refusedField(
      'points',
      'tooMany',
      `There are ${max / 100} points to get here; ${points / 100} is more.`,
    )
  const calculatedOtherwise = activity.rubricVersionId !== null || activity.combine !== null
  if (calculatedOtherwise && reason === '')
    throw refusedField(
      'reason',
      'reason',
      'Say why the points differ from what was calculated; it is kept with the mark.',
    )
}

function requireUnchanged(stored: StoredMark | undefined, { was }: PointsSet): void {
  const pointsOf = ({ state, returned, points }: StoredMark) =>
    state === 'returned' ? (returned?.points ?? null) : points
  const stands = stored ? pointsOf(stored) : null
  if (stands === was) return
  throw new Problem(
    409,
    'changedMeanwhile',
    `This mark was changed meanwhile: it stands at ${stands === null ? 'no points' : stands / 100}. Nothing was overwritten; look again.`,
  )
}

/** @returns ids of the new marks, by student */
async function insertMarks(
  tx: Db,
  { seminar, enrolment, activity }: ActivityActor,
  sets: readonly PointsSet[],
  now: Date,
): Promise<ReadonlyArray<readonly [string, string]>> {
  if (sets.length === 0) return []
  const letter = emptyMark().letter as RichNode
  const rows = await tx
    .insert(marks)
    .values(
      sets.map(({ enrolmentId, points, reason }) => ({
        overridePoints: points,
        overrideReason: points === null ? null : reason,
        savedAt: now,
        markedBy: enrolment.id,
        seminarId: seminar.id,
        activityId: activity.id,
        enrolmentId,
        rubricVersionId: activity.rubricVersionId,
        letter,
        letterText: plainText(letter),
        state: points === null ? ('open' as const) : ('held' as const),
        heldAt: points === null ? null : now,
      })),
    )
    .returning({ id: marks.id, enrolmentId: marks.enrolmentId })
  return rows.map(r => [r.enrolmentId, r.id] as const)
}

async function updateMarks(
  tx: Db,
  { enrolment, activity }: ActivityActor,
  sets: readonly PointsSet[],
  now: Date,
): Promise<void> {
  if (sets.length === 0) return
  const values = sets.map(({ enrolmentId, points, reason }) => ({
    ...{ enrolment_id: enrolmentId, points, reason: points === null ? null : reason },
  }))
  await tx.execute(sql`
    update marks m set override_points = v.points, override_reason = v.reason, saved_at = ${now.toISOString()},
      marked_by = ${enrolment.id}, version = m.version + 1
    from jsonb_to_recordset(${JSON.stringify(values)}::jsonb) as v(enrolment_id uuid, points integer, reason text)
    where m.activity_id = ${activity.id} and m.enrolment_id = v.enrolment_id`)
}

async function setStates(
  tx: Db,
  states: ReadonlyArray<{ readonly id: string; readonly state: string }>,
  now: Date,
): Promise<void> {
  if (states.length === 0) return
  await tx.execute(sql`
    update marks m set state = v.state,
      held_at = case when v.state = 'held' then coalesce(m.held_at, ${now.toISOString()}::timestamptz) end
    from jsonb_to_recordset(${JSON.stringify(states)}::jsonb) as v(id uuid, state text)
    where m.id = v.id`)
}
