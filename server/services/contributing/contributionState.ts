import { and, eq } from 'drizzle-orm'
import { KINDS } from '#core/kinds'
import { talkOf } from '#core/contributing/talkSettings'
import { isStaff, nothingHere, type ActivityActor } from '#server/access/seminar'
import type { Database } from '#server/database/client'
import { auditTrail, contributions, nods } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { announce } from './announce'
import type { NodWrite } from '#shared/contributing/thread'
import { nextSeq } from './numbering'
import { requireWriteTarget } from './writing/writeTarget'
import { readable } from './readable'
import { requireStaffAbout } from './requireStaffAbout'
import { type Contribution, requireOwn } from '#server/services/contributing/writing/requireOwn'

/** Withdraws or puts back. Authors do so within their window; staff may withdraw anything, which is written down. */
export function setWithdrawn(
  db: Database,
  actor: ActivityActor & { readonly contribution: Contribution },
  withdrawn: boolean,
  now: Date,
) {
  return db.transaction(async tx => {
    const current = await requireOwn(tx, actor, now, withdrawn ? 'withdrawn' : 'put back')
    if ((current.state === 'withdrawn') === withdrawn) return { done: true }
    if (
      !withdrawn &&
      !isStaff(actor.enrolment) &&
      current.withdrawnBy !== null &&
      current.withdrawnBy !== actor.enrolment.id
    )
      throw refusedField(
        'doc',
        'withdrawnByStaff',
        'The instructor has withdrawn this. It stays so; your text is kept here for you to read. Write to them if you think it should be back.',
      )
    // what was never shown goes back to where it waited
    const findWanted = () => {
      if (withdrawn) return 'withdrawn' as const
      if (current.seq !== null) return 'shown' as const
      if (talkOf(actor.activity.settings).approval) return 'awaitingApproval' as const
      return 'shown' as const
    }
    const wanted = findWanted()
    const seq =
      wanted === 'shown' && current.seq === null ? await nextSeq(tx, current.activityId) : current.seq
    await tx
      .update(contributions)
      .set({
        state: wanted,
        seq,
        shownAt: current.shownAt ?? now,
        showAt: null,
        withdrawnAt: withdrawn ? now : null,
        withdrawnBy: withdrawn ? actor.enrolment.id : null,
      })
      .where(eq(contributions.id, current.id))
    await tx.insert(auditTrail).values({
      seminarId: current.seminarId,
      actorId: actor.enrolment.id,
      at: now,
      act: withdrawn ? 'contributionWithdrawn' : 'contributionRestored',
      subjectId: current.id,
    })
    await announce(tx, { activityId: current.activityId, id: current.id })
    return { done: true }
  })
}

const NOD_ANYWAY: ReadonlySet<string> = new Set(['topOnly', 'closedToWords'])
/** Nods, or takes a nod back. Nobody nods at their own words. */
export async function setNod(
  db: Database,
  actor: ActivityActor & { readonly contribution: Contribution },
  write: NodWrite,
  now: Date,
) {
  const { contribution, enrolment } = actor
  if (contribution.authorId === enrolment.id) throw new Problem(422, 'ownNod', 'This post is your own.')
  return db.transaction(async tx => {
    await requireWriteTarget(
      tx,
      actor,
      { parentId: contribution.id, promptId: null, title: null, takesUp: null },
      now,
    ).catch(async (problem: unknown) => {
      // one may nod where one may not reply
      if (problem instanceof Problem && NOD_ANYWAY.has(problem.code)) return
      throw (await readable(tx, actor, contribution.id, now)) ? problem : nothingHere()
    })
    if (write.nodded)
      await tx
        .insert(nods)
        .values({
          seminarId: contribution.seminarId,
          contributionId: contribution.id,
          enrolmentId: enrolment.id,
        })
        .onConflictDoNothing()
    else
      await tx
        .delete(nods)
        .where(and(eq(nods.contributionId, contribution.id), eq(nods.enrolmentId, enrolment.id)))
    const count = await tx.$count(nods, eq(nods.contributionId, contribution.id))
    return { nods: count, nodded: write.nodded }
  })
}

/** Keeps a contribution first in its list, or lets it back into the order. Staff's to do. */
export async function setOnTop(
  db: Database,
  actor: ActivityActor & { readonly contribution: Contribution },
  onTop: boolean,
  now: Date,
) {
  await requireStaffAbout(db, actor, 'What is kept on top, the instructor decides.', now)
  if (!(await readable(db, actor, actor.contribution.id, now))) throw nothingHere()
  await db.transaction(async tx => {
    await tx.update(contributions).set({ onTop }).where(eq(contributions.id, actor.contribution.id))
    await announce(tx, { activityId: actor.activity.id, id: actor.contribution.id })
  })
  return { done: true }
}

/**
 * Opens a journal entry, with the talk under it, to the class, or closes it again: its author's choice or
 * staff's, as the journal is set.
 */
export async function setOpened(
  db: Database,
  actor: ActivityActor & { readonly contribution: Contribution },
  opened: boolean,
  now: Date,
) {
  const { activity, contribution, enrolment } = actor
  const may = contribution.authorId === enrolment.id || isStaff(enrolment)
  if (!may) throw nothingHere()
  if (
    KINDS[activity.kind].reach !== 'asOpened' ||
    contribution.parentId !== null ||
    talkOf(activity.settings).opening !== 'author'
  )
    throw new Problem(409, 'notOpenable', 'Entries are not opened one by one here.')
  await db.transaction(async tx => {
    await tx.update(contributions).set({ openToClass: opened }).where(eq(contributions.id, contribution.id))
    await tx.insert(auditTrail).values({
      seminarId: contribution.seminarId,
      actorId: enrolment.id,
      at: now,
      act: opened ? 'entryOpenedToClass' : 'entryClosed',
      subjectId: contribution.id,
    })
    await announce(tx, { activityId: activity.id, id: contribution.id })
  })
  return { done: true }
}
