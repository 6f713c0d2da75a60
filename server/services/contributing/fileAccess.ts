import { and, eq, inArray, ne } from 'drizzle-orm'
import type { H3Event } from 'h3'
import type { Db } from '#server/database/client'
import {
  activities,
  contributionFiles,
  contributions,
  enrolments,
  files,
  jointSeminars,
  markFiles,
  marks,
} from '#server/database/schema'
import { talkOf } from '#core/contributing/talkSettings'
import { readable } from '#server/services/contributing/readable'
import {
  isStaff,
  nothingHere,
  notYours,
  requireActivity,
  requireMayWrite,
  requireMember,
} from '#server/access/seminar'
import { requirePerson } from '#server/access/session'
import { hooksOf } from './kindHooks'

type FileRow = Pick<typeof files.$inferSelect, 'id' | 'madeBy' | 'seminarId'>

/**
 * Somebody who may have a file: what came with a contribution is for whoever may read the contribution; what is in a
 * brief is for the seminar, and for those it is shared with; what goes with a letter is for staff and, once returned, its
 * student; what is not with anything yet is its maker's alone.
 *
 * @returns whether they are not to know whose it is
 */
export async function requireFileReader(
  event: H3Event,
  db: Db,
  file: FileRow,
  now: Date,
): Promise<{ readonly isUnnamed: boolean }> {
  const person = await requirePerson(event)
  const [maker] = await db.select().from(enrolments).where(eq(enrolments.id, file.madeBy))
  if (maker?.personId === person.id && maker.state !== 'withdrawn') return { isUnnamed: false }
  const [attached] = await db
    .select({ id: contributions.id, activityId: contributions.activityId, state: contributions.state })
    .from(contributionFiles)
    .innerJoin(contributions, eq(contributions.id, contributionFiles.contributionId))
    .where(eq(contributionFiles.fileId, file.id))
    .limit(1) // a picture of a wiki stands in many versions, all of one wiki
  if (attached) {
    const actor = await requireActivity(event, db, attached.activityId, now)
    const { mayRead } = hooksOf(actor.activity.kind)
    if (mayRead) {
      if (await mayRead(db, actor, attached.id, now)) return { isUnnamed: false }
      throw nothingHere()
    }
    const found = attached.state === 'draft' ? null : await readable(db, actor, attached.id, now)
    if (!found || (found.row.state === 'withdrawn' && !isStaff(actor.enrolment))) throw nothingHere()
    const isHidden = talkOf(actor.activity.settings).namesHidden && !isStaff(actor.enrolment)
    return { isUnnamed: isHidden && !(maker && isStaff(maker)) }
  }
  const [withLetter] = await db
    .select({ activityId: marks.activityId, enrolmentId: marks.enrolmentId, returned: marks.returned })
    .from(markFiles)
    .innerJoin(marks, eq(marks.id, markFiles.markId))
    .where(eq(markFiles.fileId, file.id))
  if (withLetter) {
    const actor = await requireActivity(event, db, withLetter.activityId, now)
    // to a student it exists once the letter it goes with has been returned to them
    if (
      isStaff(actor.enrolment) ||
      (actor.enrolment.id === withLetter.enrolmentId &&
        withLetter.returned?.files?.some(f => f.id === file.id))
    )
      return { isUnnamed: false }
    throw nothingHere()
  }
  if (!maker || !isStaff(maker)) throw nothingHere()
  const guests = await db
    .selectDistinct({ id: jointSeminars.seminarId })
    .from(jointSeminars)
    .innerJoin(activities, eq(activities.id, jointSeminars.activityId))
    .where(eq(activities.seminarId, file.seminarId))
  const member = await db.$count(
    enrolments,
    and(
      eq(enrolments.personId, person.id),
      inArray(enrolments.seminarId, [file.seminarId, ...guests.map(g => g.id)]),
      ne(enrolments.state, 'withdrawn'),
    ),
  )
  if (member === 0) throw nothingHere()
  return { isUnnamed: false }
}

/** Somebody who may say what is heard in a recording: who made it, and the staff of its seminar while that is written in. */
export async function requireTranscriber(event: H3Event, db: Db, file: FileRow, now: Date): Promise<void> {
  await requireFileReader(event, db, file, now)
  const actor = await requireMember(event, db, file.seminarId)
  requireMayWrite(actor)
  if (!isStaff(actor.enrolment) && actor.enrolment.id !== file.madeBy)
    throw notYours('Its transcript can be given by who made it, and by the staff of the seminar.')
}
