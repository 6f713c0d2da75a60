import { and, eq } from 'drizzle-orm'
import type { Db } from '#server/database/client'
import { enrolments, secondMarks } from '#server/database/schema'

/** Who is asked to mark a student a second time, and what they made of it. */
export async function secondOf(db: Db, activityId: string, enrolmentId: string) {
  const [row] = await db
    .select({
      markerId: secondMarks.markerId,
      marker: enrolments.name,
      state: secondMarks.state,
      steps: secondMarks.steps,
      remark: secondMarks.remark,
    })
    .from(secondMarks)
    .innerJoin(enrolments, eq(enrolments.id, secondMarks.markerId))
    .where(and(eq(secondMarks.activityId, activityId), eq(secondMarks.enrolmentId, enrolmentId)))
  return row ? { ...row, steps: [...row.steps] } : null
}
