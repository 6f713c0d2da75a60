import { inArray } from 'drizzle-orm'
import { nothingHere, type ActivityActor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { enrolments } from '#server/database/schema'
import type { Student } from '#server/services/people'
import { seminarsOf } from '#server/services/planning'

export interface MarkedStudent extends Student {
  readonly practice: boolean // an instructor's own trial, counted nowhere
}

/**
 * Students by their enrolments, in the order given, as far as they are marked in the activity: those of seminars that take
 * part in it, and practice students of the actor's own. `andFormer`: also whoever has left, or is no student any more; a
 * mark of theirs is calculated anew like everyone's.
 *
 * @throws {Problem} 404 if one of them is not marked here
 */
export async function markedStudents(
  db: Db,
  { activity, seminar }: ActivityActor,
  enrolmentIds: readonly string[],
  { andFormer = false } = {},
): Promise<MarkedStudent[]> {
  const [rows, seminarIds] = await Promise.all([
    db
      .select({
        enrolmentId: enrolments.id,
        seminarId: enrolments.seminarId,
        sectionId: enrolments.sectionId,
        joinedAt: enrolments.joinedAt,
        name: enrolments.name,
        givenName: enrolments.givenName,
        familyName: enrolments.familyName,
        role: enrolments.role,
        state: enrolments.state,
      })
      .from(enrolments)
      .where(inArray(enrolments.id, [...enrolmentIds])),
    seminarsOf(db, activity),
  ])
  const isMarked = ({ role, state, seminarId }: (typeof rows)[number]) => {
    if (state === 'practice') return role === 'student' && seminarId === seminar.id
    if (!seminarIds.includes(seminarId)) return false
    return andFormer || (role === 'student' && state === 'active')
  }
  const known = new Map(rows.filter(isMarked).map(r => [r.enrolmentId, r]))
  return enrolmentIds.map(id => {
    const row = known.get(id)
    if (!row) throw nothingHere()
    const { role: _role, state, ...student } = row
    return { ...student, practice: state === 'practice' }
  })
}

/** One student who is marked in the activity. @throws {Problem} 404 if they are not */
export async function requireStudent(
  db: Db,
  actor: ActivityActor,
  enrolmentId: string,
): Promise<MarkedStudent> {
  const [student] = await markedStudents(db, actor, [enrolmentId])
  return student!
}
