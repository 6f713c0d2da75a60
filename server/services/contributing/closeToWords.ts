import { eq } from 'drizzle-orm'
import { noteActs } from '#server/services/auditTrail'
import { isStaff, nothingHere, notYours, type ActivityActor } from '#server/access/seminar'
import type { Database } from '#server/database/client'
import { activities, contributions } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { announce } from './announce'
import { readable } from './readable'
import { requireStaffAbout } from './requireStaffAbout'
import type { Contribution } from './writing/requireOwn'

const WHO_MAY = 'Whether new words are taken, the instructor decides.'

/** Closes an activity to new words of students, or opens it again. What was written stays, and can be changed as before. */
export async function setActivityClosed(
  db: Database,
  { activity, ...actor }: ActivityActor,
  closed: boolean,
  now: Date,
) {
  if (!isStaff(actor.enrolment)) throw notYours(WHO_MAY)
  await db.transaction(async tx => {
    await tx.update(activities).set({ closedToWords: closed }).where(eq(activities.id, activity.id))
    await noteActs(tx, actor, now, {
      act: closed ? 'closedToWords' : 'openedToWords',
      subjectId: activity.id,
    })
    await announce(tx, { activityId: activity.id, id: null })
  })
  return { done: true }
}

/** Closes a thread to new words of students, or opens it again. */
export async function setThreadClosed(
  db: Database,
  actor: ActivityActor & { readonly contribution: Contribution },
  closed: boolean,
  now: Date,
) {
  const { activity, contribution } = actor
  await requireStaffAbout(db, actor, WHO_MAY, now)
  if (!(await readable(db, actor, contribution.id, now))) throw nothingHere()
  if (contribution.parentId !== null)
    throw new Problem(409, 'notAThread', 'A thread is closed at its first post, for all that hangs below it.')
  await db.transaction(async tx => {
    await tx.update(contributions).set({ closedToWords: closed }).where(eq(contributions.id, contribution.id))
    await noteActs(tx, actor, now, {
      act: closed ? 'closedToWords' : 'openedToWords',
      subjectId: contribution.id,
    })
    await announce(tx, { activityId: activity.id, id: null })
  })
  return { done: true }
}

/** Refuses students where no new words are taken: in the activity, or in the thread they would be part of. */
export function requireOpenToWords(
  { activity, enrolment }: Pick<ActivityActor, 'activity' | 'enrolment'>,
  threadIsClosed: boolean,
): void {
  if (isStaff(enrolment)) return
  if (activity.closedToWords)
    throw refusedField(
      'doc',
      'closedToWords',
      'The instructor has closed this to new words. It can be read; your text is kept here.',
    )
  if (threadIsClosed)
    throw refusedField(
      'doc',
      'closedToWords',
      'The instructor has closed this thread to new words. Your text is kept here; you can write in another thread.',
    )
}
