import { and, asc, eq, inArray } from 'drizzle-orm'
import type { Db } from '#server/database/client'
import { marks } from '#server/database/schema'

export type StoredMark = typeof marks.$inferSelect

/** Marks of an activity by student, locked until the transaction ends, in one order whoever asks. */
export async function lockMarks(
  tx: Db,
  activityId: string,
  enrolmentIds: readonly string[],
): Promise<ReadonlyMap<string, StoredMark>> {
  if (enrolmentIds.length === 0) return new Map()
  const rows = await tx
    .select()
    .from(marks)
    .where(and(eq(marks.activityId, activityId), inArray(marks.enrolmentId, [...enrolmentIds])))
    .orderBy(asc(marks.id))
    .for('update')
  return new Map(rows.map(r => [r.enrolmentId, r]))
}
