import { and, eq } from 'drizzle-orm'
import { plainText, type RichNode } from '#core/contributing/richText'
import { consensusOf, type Consensus } from '#core/marking/peers/consensus'
import { reviewingShare } from '#core/marking/peers/reviewingMark'
import { levelAt, peerReviewsOf, reviewingOf } from '#core/marking/peers/fromReviews'
import { nothingHere, type ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { activities, auditTrail, criterionMarks, marks } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { requireReview } from '#server/kinds'
import { storePoints } from '#server/services/marking/storePoints'
import { withIdempotency } from '#server/services/idempotency'
import type { PeersView, TakeAnswer } from '#shared/marking/peers'
import { peersView } from './peersView'

/**
 * Takes the corrected consensus as the mark of each: steps as the readers' scores make them, and what the student's own
 * reviewing came to. The mark is held, to be looked at and returned like any other; a letter already begun stays.
 */
export function takeConsensus(
  db: Database,
  actor: ActivityActor,
  write: { readonly key: string; readonly enrolmentIds: readonly string[] },
  now: Date,
): Promise<TakeAnswer> {
  requireReview(actor.activity)
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const view = await peersView(tx, actor, now)
    const consensus = consensusFrom(view)
    const answer: TakeAnswer = { taken: [], left: [] }
    for (const enrolmentId of new Set(write.enrolmentIds)) {
      const why = await takeOne(tx, actor, view, consensus, enrolmentId, now)
      if (why) answer.left.push({ enrolmentId, why })
      else answer.taken.push(enrolmentId)
    }
    await storePoints(tx, actor, answer.taken, now)
    return answer
  })
}

export const consensusFrom = (view: PeersView): Consensus => {
  const { reviews, criteria, anchors } = peerReviewsOf(view)
  return consensusOf(reviews, criteria, anchors)
}

/** @returns why it could not be taken, or null when it was */
async function takeOne(
  tx: Db,
  actor: ActivityActor,
  view: PeersView,
  consensus: Consensus,
  enrolmentId: string,
  now: Date,
): Promise<string | null> {
  const { activity } = actor
  const work = view.works.find(w => !w.isSample && w.authorIds.includes(enrolmentId))
  const found = work && consensus.authors.get(work.id)
  if (!view.people.some(p => p.id === enrolmentId)) throw nothingHere()
  if (!view.rubric || !found || found.corrected === null)
    return 'No review that counts has scored every criterion yet.'
  const [before] = await tx
    .select()
    .from(marks)
    .where(and(eq(marks.activityId, activity.id), eq(marks.enrolmentId, enrolmentId)))
    .for('update')
  if (before?.state === 'returned') return 'This mark has been returned. Reopen it first.'
  const steps = view.rubric.criteria.map(c => {
    const points = Math.round(found.criteria.get(c.id)!.corrected!)
    return { criterionId: c.id, points, levelId: levelAt(c.levels, points).id }
  })
  const { share } = reviewingShare(reviewingOf(view, consensus, enrolmentId), view.settings.weights)
  const letter = before && before.letterText !== '' ? before.letter : peerLetterOf(view, work, enrolmentId)
  const columns = {
    rubricVersionId: view.rubric.versionId,
    letter,
    letterText: plainText(letter),
    takenFrom: 'consensus' as const,
    reviewing: view.settings.reviewingPercent > 0 && share !== null ? Math.round(share * 10_000) : null,
    overridePoints: null,
    overrideReason: null,
    state: 'held' as const,
    heldAt: now,
    savedAt: now,
    markedBy: actor.enrolment.id,
  }
  const [stored] = before
    ? await tx
        .update(marks)
        .set({ ...columns, version: before.version + 1 })
        .where(eq(marks.id, before.id))
        .returning()
    : await tx
        .insert(marks)
        .values({
          ...columns,
          seminarId: actor.seminar.id,
          activityId: activity.id,
          enrolmentId,
          markerNote: '',
        })
        .returning()
  await tx.delete(criterionMarks).where(eq(criterionMarks.markId, stored!.id))
  await tx
    .insert(criterionMarks)
    .values(steps.map(s => ({ ...s, seminarId: actor.seminar.id, markId: stored!.id })))
  await tx.insert(auditTrail).values({
    seminarId: actor.seminar.id,
    actorId: actor.enrolment.id,
    at: now,
    act: 'consensusTaken',
    subjectId: stored!.id,
    detail: {
      steps,
      reviews: view.allocations
        .filter(a => a.entryId === work.id && a.state === 'in' && a.setAside === null && a.source !== 'self')
        .map(a => a.id),
    },
  })
  return null
}

/** A letter to begin with: what readers said, criterion by criterion, without their names. */
export function peerLetterOf(
  view: PeersView,
  work: PeersView['works'][number],
  enrolmentId: string,
): RichNode {
  const given = view.allocations.filter(
    a =>
      a.entryId === work.id &&
      a.state === 'in' &&
      a.setAside === null &&
      a.source !== 'self' &&
      a.source !== 'practice',
  )
  const line = (...content: RichNode[]): RichNode => ({ type: 'paragraph', content })
  const text = (words: string): RichNode => ({ type: 'text', text: words })
  const name = view.people.find(p => p.id === enrolmentId)?.givenName ?? ''
  const parts = (view.rubric?.criteria ?? []).flatMap((c): RichNode[] => {
    const remarks = given.map(a => a.remarks[c.id]?.trim() ?? '').filter(Boolean)
    if (remarks.length === 0) return []
    return [
      { type: 'heading', attrs: { level: 3 }, content: [text(c.title)] },
      ...remarks.map(r =>
        line(
          { type: 'text', text: 'One reader: ', marks: [{ type: 'italic' }] },
          text(r.replace(/\s+/g, ' ')),
        ),
      ),
    ]
  })
  return {
    type: 'doc',
    content: [
      line(text(`Dear ${name},`)),
      line(
        text(
          `this is what ${given.length === 1 ? 'a classmate' : `${given.length} classmates`} made of your work.`,
        ),
      ),
      ...parts,
    ],
  }
}

/**
 * Shares a group's mark among its members by factors: the points of the group's criteria, or, where there are none, all
 * points, are multiplied for each. The instructor decides; marks already returned are not touched.
 */
export function shareMark(
  db: Database,
  actor: ActivityActor,
  write: {
    readonly key: string
    readonly factors: ReadonlyArray<{ readonly enrolmentId: string; readonly factor: number | null }>
  },
  now: Date,
): Promise<TakeAnswer> {
  const settings = requireReview(actor.activity)
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const [target] = settings.sharesOf
      ? await tx
          .select()
          .from(activities)
          .where(
            and(eq(activities.id, settings.sharesOf), eq(activities.seminarId, actor.activity.seminarId)),
          )
      : []
    if (!target)
      throw new Problem(
        409,
        'noTarget',
        'No activity is named whose group mark is to be shared. Name it in the plan of this review.',
      )
    const [least, most] = [Math.round(settings.bounds.least * 100), Math.round(settings.bounds.most * 100)]
    const answer: TakeAnswer = { taken: [], left: [] }
    const changed: string[] = []
    for (const { enrolmentId, factor } of write.factors) {
      if (factor !== null && (factor < least || factor > most))
        throw refusedField(
          'factors',
          'outOfBounds',
          `Shares go from ${least / 100} to ${most / 100} here; ${factor / 100} is outside.`,
        )
      const [mark] = await tx
        .select()
        .from(marks)
        .where(and(eq(marks.activityId, target.id), eq(marks.enrolmentId, enrolmentId)))
        .for('update')
      if (!mark) {
        answer.left.push({ enrolmentId, why: 'There is no mark to share yet.' })
        continue
      }
      if (mark.factor === factor) {
        answer.taken.push(enrolmentId)
        continue
      }
      // a returned mark that is changed is held again; the student keeps the letter they have until the next return
      await tx
        .update(marks)
        .set({
          factor,
          version: mark.version + 1,
          savedAt: now,
          ...(mark.state === 'returned' && { state: 'held' as const }),
        })
        .where(eq(marks.id, mark.id))
      await tx.insert(auditTrail).values({
        seminarId: actor.seminar.id,
        actorId: actor.enrolment.id,
        at: now,
        act: 'groupMarkShared',
        subjectId: mark.id,
        detail: { from: mark.factor, to: factor },
      })
      changed.push(enrolmentId)
      answer.taken.push(enrolmentId)
    }
    await storePoints(tx, { ...actor, activity: target }, changed, now)
    return answer
  })
}
