import { detailOf } from '#core/kinds/contributionDetail'
import { kindsWhere } from '#core/kinds'
import { noteActs } from '#server/services/auditTrail'
import { and, eq, inArray, isNull } from 'drizzle-orm'
import { v7 } from 'uuid'
import type { RichNode } from '#core/contributing/richText'
import { nothingHere, type ActivityActor } from '#server/access/seminar'
import type { AuditAct } from '#server/database/auditActs'
import type { Database, Db } from '#server/database/client'
import { activities, allocations, auditTrail, contributions, peerReviews } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { announce, nextSeq } from '#server/services/contributing'
import {
  type Allocation,
  entryOf,
  type LoadedPeerReview,
  loadPeerReview,
  lockPeerReview,
  requireReview,
  waitingReviews,
} from '#server/kinds'
import { renderDoc } from '#server/richText/renderDoc'
import { happened } from '#server/services/events'
import { loadRubric } from '#server/services/rubrics'
import { withIdempotency } from '#server/services/idempotency'
import { isRunning } from '#server/services/people'
import { doEach, mayBeTried } from '#server/services/dueWork'
import type { JudgeWrite, ReleaseWrite, SampleWrite } from '#shared/marking/peers'

/** Lets a review count after a look at it, sets it aside with a reason, or leaves the question open again. */
export function judgeReview(
  db: Database,
  actor: ActivityActor & { readonly allocation: Allocation },
  write: JudgeWrite,
  now: Date,
): Promise<{ done: boolean }> {
  return db.transaction(async tx => {
    const [allocation] = await tx
      .select()
      .from(allocations)
      .where(eq(allocations.id, actor.allocation.id))
      .for('update')
    if (allocation?.state !== 'in')
      throw new Problem(409, 'notIn', 'This review has not been handed in, so there is nothing to judge yet.')
    const by = actor.enrolment.id
    await tx
      .update(allocations)
      .set({
        keptBy: write.as === 'kept' ? by : null,
        setAsideBy: write.as === 'setAside' ? by : null,
        setAsideReason: write.as === 'setAside' ? write.reason : null,
        notDone: write.as === 'setAside' && !write.countsAsDone,
        setAsideTold: write.as === 'setAside' && write.tell,
      })
      .where(eq(allocations.id, allocation.id))
    const actOf = (): AuditAct => {
      if (write.as === 'setAside') return 'reviewSetAside'
      if (write.as === 'kept') return 'reviewKept'
      return 'reviewLeftOpen'
    }
    await tx.insert(auditTrail).values({
      seminarId: actor.seminar.id,
      actorId: by,
      at: now,
      act: actOf(),
      subjectId: allocation.id,
      detail: write.as === 'setAside' ? { reason: write.reason, countsAsDone: write.countsAsDone } : {},
    })
    await tellReviewer(tx, actor.activity, allocation, write, now)
    return { done: true }
  })
}

/** Tells a reviewer that a review is set aside, where that is wanted; and that it counts again, where they had been told. */
async function tellReviewer(
  tx: Db,
  activity: ActivityActor['activity'],
  before: Allocation,
  write: JudgeWrite,
  now: Date,
): Promise<void> {
  const isSetAside = write.as === 'setAside'
  const isTold = isSetAside && write.tell
  const knows = before.setAsideTold && isSetAside && before.setAsideReason === write.reason
  if (knows || !(isTold || (before.setAsideTold && !isSetAside))) return
  await happened(
    tx,
    {
      kind: 'reviewJudged',
      activity,
      enrolmentId: before.reviewerId,
      reviewId: before.id,
      counts: !isSetAside,
      reason: isSetAside ? write.reason : '',
    },
    now,
  )
}

/**
 * Lets reviews out to those whose work they are of, all at the same moment, or holds them again. What comes in after that waits,
 * and is let out in batches of its own: neither order nor time tells whose it is.
 */
export function release(
  db: Database,
  actor: ActivityActor,
  { released, late, upTo }: ReleaseWrite,
  now: Date,
): Promise<{ done: boolean }> {
  requireReview(actor.activity)
  return db.transaction(async tx => {
    const row = await lockPeerReview(tx, actor.activity)
    const peerReview = await loadPeerReview(tx, actor.activity)
    if (late) return releaseLate(tx, actor, peerReview, { released, upTo }, now)
    if ((row.releasedAt !== null) === released) return { done: true }
    await tx
      .update(peerReviews)
      .set({
        releasedAt: released ? now : null,
        releasedUpTo: released ? now : null,
        releasedBy: released ? actor.enrolment.id : null,
      })
      .where(eq(peerReviews.activityId, actor.activity.id))
    await noteActs(tx, actor, now, {
      act: released ? 'reviewsReleased' : 'reviewsHeldAgain',
      subjectId: actor.activity.id,
    })
    if (released) await notifyOfRelease(tx, actor.activity, now)
    return { done: true }
  })
}

/** Lets those out that came in after the release, or holds all of these again. */
async function releaseLate(
  tx: Db,
  actor: ActivityActor,
  peerReview: LoadedPeerReview,
  { released, upTo }: Pick<ReleaseWrite, 'released' | 'upTo'>,
  now: Date,
): Promise<{ done: boolean }> {
  const first = peerReview.row?.releasedAt ?? null
  const waiting = waitingReviews(peerReview, now)
  if (first === null || (released && waiting.length === 0)) return { done: true }
  await tx
    .update(peerReviews)
    .set({ releasedUpTo: released ? now : heldFrom(first, upTo, now) })
    .where(eq(peerReviews.activityId, actor.activity.id))
  await noteActs(tx, actor, now, {
    act: released ? 'reviewsReleased' : 'reviewsHeldAgain',
    subjectId: actor.activity.id,
    detail: { late: true },
  })
  if (released) {
    const owners = waiting.flatMap(a => entryOf(peerReview, a)?.ownerIds ?? [a.subjectId])
    await happened(
      tx,
      { kind: 'released', activity: actor.activity, enrolmentIds: [...new Set(owners)] },
      now,
    )
  }
  return { done: true }
}

/** From when on reviews wait again: never before the release itself, nor after now. */
function heldFrom(first: Date, upTo: string | null, now: Date): Date {
  const wanted = upTo === null ? first.getTime() : Date.parse(upTo)
  return new Date(Math.min(now.getTime(), Math.max(first.getTime(), wanted)))
}

/** Releases what was set to be released at a time that has come. @returns how many */
export async function releaseDue(db: Database, now: Date): Promise<number> {
  const rows = await db
    .select({ id: activities.id, seminarId: activities.seminarId, activity: activities })
    .from(activities)
    .innerJoin(peerReviews, eq(peerReviews.activityId, activities.id))
    .where(
      and(
        inArray(
          activities.kind,
          kindsWhere(k => k.markedBy === 'peers'),
        ),
        isNull(peerReviews.releasedAt),
        isRunning(activities.seminarId),
        mayBeTried('release', activities.id, now),
      ),
    )
  const due = rows.filter(
    ({ activity: { settings } }) =>
      settings.review?.release === 'at' &&
      settings.review.releaseAt !== null &&
      new Date(settings.review.releaseAt) <= now,
  )
  return doEach(db, 'release', due, now, async (tx, { activity }) => {
    const row = await lockPeerReview(tx, activity)
    if (row.releasedAt) return 0
    await tx
      .update(peerReviews)
      .set({ releasedAt: now, releasedUpTo: now })
      .where(eq(peerReviews.activityId, activity.id))
    await notifyOfRelease(tx, activity, now)
    return 1
  })
}

/** Everyone with work in it is told the same at the same time, however many reviews they received. */
async function notifyOfRelease(tx: Db, activity: ActivityActor['activity'], now: Date): Promise<void> {
  const peerReview = await loadPeerReview(tx, activity)
  const people =
    peerReview.settings.subject === 'teammates'
      ? peerReview.students.map(s => s.enrolmentId)
      : [...new Set(peerReview.entries.filter(e => !e.isSample).flatMap(e => e.ownerIds))]
  await happened(tx, { kind: 'released', activity, enrolmentIds: people }, now)
}

/** Writes to reviewers who owe reviews. Each gets a notice of their own; none is told who else. */
export function remind(
  db: Database,
  actor: ActivityActor,
  write: { readonly key: string; readonly enrolmentIds: readonly string[]; readonly words: string },
  now: Date,
): Promise<{ told: number }> {
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const peerReview = await loadPeerReview(tx, actor.activity)
    const owing = new Set(
      peerReview.allocations.filter(a => a.state !== 'in' && a.source !== 'practice').map(a => a.reviewerId),
    )
    const ids = write.enrolmentIds.filter(id => owing.has(id))
    await happened(
      tx,
      { kind: 'reviewsOwed', activity: actor.activity, enrolmentIds: ids, words: write.words },
      now,
    )
    return { told: ids.length }
  })
}

/** Puts up a sample to practise on, with the instructor's own scores; changed as long as nobody has practised on it. */
export function putSample(
  db: Database,
  actor: ActivityActor,
  write: SampleWrite,
  now: Date,
): Promise<{ done: boolean }> {
  requireReview(actor.activity)
  const rendered = renderDoc(write.doc as RichNode)
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const rubric = await loadRubric(tx, actor.activity.rubricVersionId)
    if (rendered.words === 0) throw refusedField('doc', 'empty', 'A sample wants a text to practise on.')
    for (const c of rubric?.criteria ?? []) {
      const points = write.points[c.id]
      if (points === undefined || points > c.max)
        throw refusedField(
          'points',
          'open',
          `Give your own score for “${c.title}”, from 0 to ${c.max / 100}: reviewers see how far theirs are off.`,
        )
    }
    const detail = { sample: { points: write.points, why: write.why } }
    const { doc, html, text, words, sources } = rendered
    const [there] = await tx.select().from(contributions).where(eq(contributions.id, write.id)).for('update')
    if (there) {
      if (there.activityId !== actor.activity.id || !detailOf(there, 'entry').sample) throw nothingHere()
      if (
        (await tx.$count(allocations, and(eq(allocations.entryId, there.id), eq(allocations.state, 'in')))) >
        0
      )
        throw new Problem(
          409,
          'practised',
          'Somebody has practised on this sample already, so it stays as it is. Put up another one.',
        )
      await tx
        .update(contributions)
        .set({ doc, html, text, words, sources, detail, savedAt: now, version: there.version + 1 })
        .where(eq(contributions.id, there.id))
      return { done: true }
    }
    await tx.insert(contributions).values({
      id: write.id || v7(),
      seminarId: actor.seminar.id,
      activityId: actor.activity.id,
      authorId: actor.enrolment.id,
      type: 'entry',
      state: 'shown',
      threadId: write.id,
      slot: `sample:${write.id}`,
      doc,
      html,
      text,
      words,
      sources,
      detail,
      seq: await nextSeq(tx, actor.activity.id),
      savedAt: now,
      shownAt: now,
      madeAt: now,
    })
    await announce(tx, { activityId: actor.activity.id, id: write.id })
    return { done: true }
  })
}

/** Takes a sample away with what was practised on it. */
export async function takeSampleAway(
  db: Database,
  actor: ActivityActor,
  entryId: string,
  now: Date,
): Promise<{ done: boolean }> {
  return db.transaction(async tx => {
    const [sample] = await tx
      .select()
      .from(contributions)
      .where(and(eq(contributions.id, entryId), eq(contributions.activityId, actor.activity.id)))
    if (!sample || !detailOf(sample, 'entry').sample) throw nothingHere()
    const rows = await tx
      .delete(allocations)
      .where(eq(allocations.entryId, entryId))
      .returning({ reviewId: allocations.reviewId })
    const written = rows.flatMap(r => r.reviewId ?? [])
    const gone = {
      state: 'withdrawn' as const,
      withdrawnAt: now,
      withdrawnBy: actor.enrolment.id,
      shownAt: now,
    }
    if (written.length > 0) await tx.update(contributions).set(gone).where(inArray(contributions.id, written))
    await tx.update(contributions).set(gone).where(eq(contributions.id, entryId))
    return { done: true }
  })
}
