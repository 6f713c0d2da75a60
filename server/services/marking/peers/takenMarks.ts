import { inArray, sql } from 'drizzle-orm'
import { plainText } from '#core/contributing/richText'
import type { ActivityActor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { criterionMarks, marks, type MarkBeforeTake } from '#server/database/schema'
import { Problem } from '#server/http/problem'
import type { StoredMark } from '#server/services/marking/lockMarks'

/** A mark as it shall stand, with what stood there before where that can be undone. */
export interface MarkToStore extends MarkBeforeTake {
  readonly enrolmentId: string
  readonly known: StoredMark | undefined // the locked row
  readonly beforeTake: (typeof marks.$inferInsert)['beforeTake']
}

/**
 * Writes marks with their steps, one set of statements however many.
 *
 * @returns their ids, by student
 * @throws Problem 409 when somebody marked one of them at this moment
 */
export async function storeMarks(
  tx: Db,
  actor: ActivityActor,
  wanted: readonly MarkToStore[],
): Promise<ReadonlyMap<string, string>> {
  if (wanted.length === 0) return new Map()
  const known = wanted.flatMap(w => w.known?.id ?? [])
  const stored = await tx
    .insert(marks)
    .values(
      wanted.map(({ steps: _, known: __, heldAt, savedAt, ...w }) => ({
        ...w,
        seminarId: actor.seminar.id,
        activityId: actor.activity.id,
        letterText: plainText(w.letter),
        markerNote: '',
        heldAt: heldAt === null ? null : new Date(heldAt),
        savedAt: new Date(savedAt),
      })),
    )
    .onConflictDoUpdate({
      target: [marks.activityId, marks.enrolmentId],
      set: {
        rubricVersionId: sql`excluded.rubric_version_id`,
        letter: sql`excluded.letter`,
        letterText: sql`excluded.letter_text`,
        takenFrom: sql`excluded.taken_from`,
        reviewing: sql`excluded.reviewing`,
        reviewingParts: sql`excluded.reviewing_parts`,
        overridePoints: sql`excluded.override_points`,
        overrideReason: sql`excluded.override_reason`,
        state: sql`excluded.state`,
        heldAt: sql`excluded.held_at`,
        savedAt: sql`excluded.saved_at`,
        markedBy: sql`excluded.marked_by`,
        beforeTake: sql`excluded.before_take`,
        version: sql`${marks.version} + 1`,
      },
      // one that came in between is somebody else's, and stays as it is
      setWhere: known.length > 0 ? inArray(marks.id, known) : sql`false`,
    })
    .returning({ id: marks.id, enrolmentId: marks.enrolmentId })
  if (stored.length < wanted.length)
    throw new Problem(
      409,
      'changedMeanwhile',
      'Somebody marked one of these students at this moment. Nothing was taken; try again.',
    )
  const markOf = new Map(stored.map(m => [m.enrolmentId, m.id]))
  await tx.delete(criterionMarks).where(inArray(criterionMarks.markId, [...markOf.values()]))
  const steps = wanted.flatMap(w =>
    w.steps.map(s => ({ ...s, seminarId: actor.seminar.id, markId: markOf.get(w.enrolmentId)! })),
  )
  if (steps.length > 0) await tx.insert(criterionMarks).values(steps)
  return markOf
}
