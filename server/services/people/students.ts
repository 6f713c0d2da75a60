import { and, eq, inArray } from 'drizzle-orm'
import type { Db } from '#server/database/client'
import { enrolments } from '#server/database/schema'

/** Who takes part in activities, as far as it is decided by that. */
export interface Participant {
  readonly enrolmentId: string
  readonly sectionId: string | null
  readonly seminarId: string
  readonly joinedAt: Date // what closed before does not count against them
}

export interface Student extends Participant {
  readonly name: string
  readonly givenName: string
  readonly familyName: string
}

/** Students who count: active ones. Practice and withdrawn people take no part. */
export const countedStudents = (db: Db, seminarId: string | readonly string[]): Promise<Student[]> =>
  studentsIn(db, seminarId, 'active')

/** Practice students: an instructor's own trials, marked like anyone's and counted nowhere. */
export const practiceStudents = (db: Db, seminarId: string): Promise<Student[]> =>
  studentsIn(db, seminarId, 'practice')

async function studentsIn(
  db: Db,
  seminarId: string | readonly string[],
  state: 'active' | 'practice',
): Promise<Student[]> {
  const rows = await db
    .select({
      enrolmentId: enrolments.id,
      seminarId: enrolments.seminarId,
      sectionId: enrolments.sectionId,
      joinedAt: enrolments.joinedAt,
      name: enrolments.name,
      givenName: enrolments.givenName,
      familyName: enrolments.familyName,
    })
    .from(enrolments)
    .where(
      and(
        inArray(enrolments.seminarId, typeof seminarId === 'string' ? [seminarId] : [...seminarId]),
        eq(enrolments.role, 'student'),
        eq(enrolments.state, state),
      ),
    )
  const order = new Intl.Collator('en')
  return rows.sort(
    (a, b) => order.compare(a.familyName, b.familyName) || order.compare(a.givenName, b.givenName),
  )
}
