import { sql, type SQL } from 'drizzle-orm'

/** Ids of the seminars that take part in activities of this one. */
export const joinedWith = (seminarId: string): SQL =>
  sql`select j.seminar_id from joint_seminars j join activities a on a.id = j.activity_id where a.seminar_id = ${seminarId}`
