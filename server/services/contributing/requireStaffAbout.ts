import { isStaff, nothingHere, notYours, type ActivityActor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { readable } from './readable'
import type { Contribution } from './writing/requireOwn'

type ContributionActor = ActivityActor & { readonly contribution: Contribution }

/** What only staff may do with a contribution. A student is told so of what they can read; anything else is not there for them. */
export async function requireStaffAbout(
  db: Db,
  actor: ContributionActor,
  sentence: string,
  now: Date,
): Promise<void> {
  if (isStaff(actor.enrolment)) return
  throw (await readable(db, actor, actor.contribution.id, now)) ? notYours(sentence) : nothingHere()
}

/** A contribution to those who mark it and see what was changed in it. A draft is nobody's but its author's. */
export async function requireMarkerOf<A extends ContributionActor>(db: Db, actor: A, now: Date): Promise<A> {
  await requireStaffAbout(
    db,
    actor,
    'Marks and earlier texts are for the instructor and assistants of this seminar.',
    now,
  )
  const { state } = actor.contribution
  if (state === 'draft' || state === 'scheduled') throw nothingHere()
  return actor
}
