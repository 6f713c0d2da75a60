import type { ActivityRow } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { type Student, countedStudents } from '#server/services/people'
import { seminarsOf } from './jointActivities'

/** Students of all seminars that take part in an activity; whom it is meant for, its plan says. */
export const participants = async (
  db: Db,
  activity: Pick<ActivityRow, 'id' | 'seminarId'>,
): Promise<Student[]> => countedStudents(db, await seminarsOf(db, activity))
