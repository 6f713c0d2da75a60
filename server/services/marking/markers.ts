import { and, asc, eq, inArray } from 'drizzle-orm'
import { noteActs } from '#server/services/auditTrail'
import type { Actor, ActivityRow } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { enrolments, markerShares } from '#server/database/schema'
import { refusedField } from '#server/http/problem'
import { withIdempotency } from '#server/services/idempotency'

/** Who marks in a seminar: instructors and assistants. */
export function markersOf(db: Db, actor: Actor): Promise<Array<{ id: string; name: string; isMe: boolean }>> {
  return db
    .select({ id: enrolments.id, name: enrolments.name })
    .from(enrolments)
    .where(
      and(
        eq(enrolments.seminarId, actor.seminar.id),
        inArray(enrolments.role, ['instructor', 'assistant']),
        eq(enrolments.state, 'active'),
      ),
    )
    .orderBy(asc(enrolments.familyName))
    .then(rows => rows.map(r => ({ ...r, isMe: r.id === actor.enrolment.id })))
}

/** Whose share each student's record is, by activity and then student. */
export async function sharesIn(
  db: Db,
  activityIds: readonly string[],
): Promise<Map<string, Map<string, string>>> {
  const shares = new Map(activityIds.map(id => [id, new Map<string, string>()]))
  if (activityIds.length === 0) return shares
  for (const s of await db
    .select()
    .from(markerShares)
    .where(inArray(markerShares.activityId, [...activityIds])))
    shares.get(s.activityId)!.set(s.enrolmentId, s.markerId)
  return shares
}

/** Deals records to markers in the order given, sizes differing by one at most; to nobody: they are everyone's again. */
export function shareOut(
  db: Database,
  actor: Actor & { readonly activity: ActivityRow },
  write: {
    readonly key: string
    readonly enrolmentIds: readonly string[]
    readonly markerIds: readonly string[]
  },
  now: Date,
): Promise<{ done: boolean }> {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const known = await markersOf(tx, actor)
    if (write.markerIds.some(id => !known.some(m => m.id === id)))
      throw refusedField(
        'markerIds',
        'notAMarker',
        'Choose among the instructor and assistants of this seminar.',
      )
    const { activity } = actor
    const students = await tx
      .select({ id: enrolments.id })
      .from(enrolments)
      .where(and(inArray(enrolments.id, [...write.enrolmentIds]), eq(enrolments.role, 'student')))
    const ids = write.enrolmentIds.filter(id => students.some(s => s.id === id))
    if (ids.length > 0)
      await tx
        .delete(markerShares)
        .where(and(eq(markerShares.activityId, activity.id), inArray(markerShares.enrolmentId, ids)))
    const n = write.markerIds.length
    if (n > 0 && ids.length > 0)
      await tx.insert(markerShares).values(
        ids.map((enrolmentId, i) => ({
          seminarId: actor.seminar.id,
          activityId: activity.id,
          enrolmentId,
          markerId: write.markerIds[Math.floor((i * n) / ids.length)]!,
        })),
      )
    await noteActs(tx, actor, now, {
      act: 'markingShared',
      subjectId: activity.id,
      detail: { markers: write.markerIds, records: ids.length },
    })
    return { done: true }
  })
}
