import { eq } from 'drizzle-orm'
import { talkOf } from '#core/contributing/talkSettings'
import { isStaff, nothingHere, notYours, type ActivityActor } from '#server/access/seminar'
import type { Db } from '#server/database/client'
import { contributions } from '#server/database/schema'
import { refusedField } from '#server/http/problem'
import { readable } from '#server/services/contributing/readable'
import { hooksOf } from '#server/services/contributing/kindHooks'
import { changeableUntil } from '#server/services/contributing/shapeForReader'
import { localTime } from '#core/planning/localTime'

export type Contribution = typeof contributions.$inferSelect

/** The row, locked, if the actor may change it now. What is not the actor's to see is answered as if it were not there. */
export async function requireOwn(
  tx: Db,
  actor: ActivityActor & { readonly contribution: Contribution },
  now: Date,
  verb: 'changed' | 'withdrawn' | 'put back',
): Promise<Contribution> {
  const [current] = await tx
    .select()
    .from(contributions)
    .where(eq(contributions.id, actor.contribution.id))
    .for('update')
  const isOwn = current?.authorId === actor.enrolment.id
  if (!current || current.state === 'draft') throw nothingHere()
  if (!isOwn && !(await readable(tx, actor, current.id, now))) throw nothingHere()
  // a history has no holes: what a version did is undone by the next
  if (current.type === 'pageVersion')
    throw refusedField(
      'doc',
      'version',
      'A version stays in the history of its page. Bring an earlier one back, or save another.',
    )
  if (!isOwn && !(isStaff(actor.enrolment) && verb !== 'changed' && current.state !== 'scheduled'))
    throw notYours('Only its author can do this.')
  const { requireChangeable } = hooksOf(actor.activity.kind)
  if (requireChangeable && isOwn && !isStaff(actor.enrolment)) {
    await requireChangeable(tx, actor, current, verb, now)
    return current
  }
  const minutes =
    verb === 'changed' ? actor.activity.settings.editMinutes : talkOf(actor.activity.settings).withdrawMinutes
  const until = changeableUntil(actor.enrolment, current.shownAt ?? now, minutes)
  if (now > until && current.state !== 'awaitingApproval')
    throw refusedField(
      'doc',
      'tooLate',
      `A post can be ${verb} for ${minutes} minutes, here until ${localTime(until, actor.seminar.timeZone)}. Ask the instructor, or add a reply.`,
    )
  return current
}
