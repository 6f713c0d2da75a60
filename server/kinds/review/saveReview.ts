import type { ActivityActor } from '#server/access/seminar'
import { and, eq, inArray, isNull } from 'drizzle-orm'
import { v7 } from 'uuid'
import { lacksOf } from '#core/kinds/review/missing'
import type { RichNode } from '#core/contributing/richText'
import type { Database, Db } from '#server/database/client'
import type { ReviewContent } from '#core/kinds/review/reviewContent'
import { allocations, contributions, willing } from '#server/database/schema'
import { Problem, refusedField } from '#server/http/problem'
import { announce, nextSeq } from '#server/services/contributing'
import { renderDoc } from '#server/richText/renderDoc'
import { loadRubric } from '#server/services/rubrics'
import { withIdempotency } from '#server/services/idempotency'
import type { RubricView } from '#shared/contributing/activity'
import type { ReviewStored, ReviewWrite } from '#shared/kinds/review/review'
import {
  hasReviewingBegun,
  practiceBefore,
  isLetOut,
  loadPeerReview,
  type Allocation,
  type LoadedPeerReview,
} from './peerReview'
import { reassigned } from './reviewAccess'
import { contentOf, givenView } from './shapeReview'

type ReviewerAt = ActivityActor & { readonly allocation: Allocation }

/** Notes that a reviewer has opened what they are to review: from now on no repair takes it from them. */
export async function noteOpened(db: Db, { allocation }: ReviewerAt, now: Date): Promise<void> {
  if (!allocation.openedAt)
    await db
      .update(allocations)
      .set({ openedAt: now })
      .where(and(eq(allocations.id, allocation.id), isNull(allocations.openedAt)))
}

/** Saves what a reviewer has given so far. A version saved elsewhere meanwhile is not overwritten: both come back. */
export function saveReview(
  db: Database,
  actor: ReviewerAt,
  write: ReviewWrite,
  now: Date,
): Promise<ReviewStored> {
  return db.transaction(async tx => {
    const { allocation, peerReview, rubric } = await requireOpen(tx, actor, now)
    const content = soundContent(write, rubric, peerReview)
    const [row] = allocation.reviewId
      ? await tx.select().from(contributions).where(eq(contributions.id, allocation.reviewId)).for('update')
      : []
    if (row && row.version !== write.baseVersion && !sameContent(contentOf(row), content)) {
      throw new Problem(
        409,
        'changedMeanwhile',
        'This review was changed in another window. Both are here; keep the one you want.',
        { theirs: { given: givenView(row), version: row.version } },
      )
    }
    const rendered = renderDoc(docOf(content, rubric, peerReview))
    const columns = {
      doc: rendered.doc,
      html: rendered.html,
      text: rendered.text,
      words: rendered.words,
      sources: rendered.sources,
      detail: { review: content },
      savedAt: now,
    }
    if (row)
      await tx
        .update(contributions)
        .set({ ...columns, version: row.version + 1 })
        .where(eq(contributions.id, row.id))
    const id = row?.id ?? v7()
    if (!row) {
      await tx.insert(contributions).values({
        id,
        seminarId: actor.activity.seminarId,
        activityId: actor.activity.id,
        authorId: actor.enrolment.id,
        type: 'review',
        parentId: allocation.entryId,
        threadId: allocation.entryId ?? id,
        openerId: actor.enrolment.id,
        slot: allocation.id,
        state: 'draft',
        madeAt: now,
        ...columns,
      })
      await tx
        .update(allocations)
        .set({ reviewId: id, state: 'begun', openedAt: allocation.openedAt ?? now })
        .where(eq(allocations.id, allocation.id))
    }
    return { version: (row?.version ?? 0) + 1, words: rendered.words }
  })
}

/** Hands reviews in: this one, or, where they go in together, all that the reviewer owes. Nothing goes in while one lacks something. */
export function handInReviews(
  db: Database,
  actor: ReviewerAt,
  key: string,
  now: Date,
): Promise<{ handedIn: number }> {
  return withIdempotency(db, actor.enrolment, key, async tx => {
    const { allocation, peerReview, rubric } = await requireOpen(tx, actor, now)
    const all =
      allocation.source !== 'practice' &&
      (peerReview.settings.together || peerReview.settings.subject === 'teammates')
    const going = all
      ? peerReview.allocations.filter(
          a => a.reviewerId === actor.enrolment.id && a.source !== 'practice' && a.state !== 'in',
        )
      : [allocation]
    const rows = await tx
      .select()
      .from(contributions)
      .where(inArray(contributions.id, going.flatMap(a => a.reviewId ?? []).concat(actor.activity.id)))
    const asked = {
      criteria: rubric?.criteria ?? [],
      questions: peerReview.settings.questions,
      remarkWords: peerReview.settings.remarkWords,
    }
    const unready = going.filter(
      a => lacksOf(contentOf(rows.find(r => r.id === a.reviewId)), asked).length > 0,
    )
    if (unready.length > 0 || going.some(a => !a.reviewId)) {
      throw refusedField(
        'review',
        'lacking',
        all && unready.some(a => a.id !== allocation.id)
          ? `They go in together, and ${unready.length === 1 ? 'one of them still lacks' : `${unready.length} of them still lack`} something. Nothing was handed in; all of it is kept.`
          : 'Something is still asked for here: it is marked where it belongs. Nothing was handed in; all of it is kept.',
      )
    }
    for (const a of going) {
      const row = rows.find(r => r.id === a.reviewId)!
      await tx
        .update(contributions)
        .set({
          state: 'shown',
          shownAt: now,
          seq: await nextSeq(tx, actor.activity.id),
          version: row.version + 1,
        })
        .where(eq(contributions.id, row.id))
      await tx.update(allocations).set({ state: 'in', handedInAt: now }).where(eq(allocations.id, a.id))
      await announce(tx, { activityId: actor.activity.id, id: row.id })
    }
    return { handedIn: going.length }
  })
}

/** Takes a review back to go on with it, while reviewing lasts and nobody has received it. */
export function takeReviewBack(
  db: Database,
  actor: ReviewerAt,
  key: string,
  now: Date,
): Promise<{ handedIn: number }> {
  return withIdempotency(db, actor.enrolment, key, async tx => {
    const [allocation] = await tx
      .select()
      .from(allocations)
      .where(eq(allocations.id, actor.allocation.id))
      .for('update')
    const peerReview = await loadPeerReview(tx, actor.activity)
    if (allocation!.state !== 'in') return { handedIn: 0 }
    const stays = mayTakeBack(peerReview, allocation!, now)
    if (stays) throw stays
    await tx
      .update(contributions)
      .set({ state: 'draft', shownAt: null })
      .where(eq(contributions.id, allocation!.reviewId!))
    await tx
      .update(allocations)
      .set({ state: 'begun', handedInAt: null })
      .where(eq(allocations.id, allocation!.id))
    return { handedIn: 1 }
  })
}

/** Why a review that is in stays as it is; null: its reviewer can go on with it. */
export function mayTakeBack(peerReview: LoadedPeerReview, allocation: Allocation, now: Date): Problem | null {
  if (allocation.source === 'practice')
    return new Problem(
      409,
      'practised',
      'You have seen the instructor’s own scores of this sample, so yours stay as they were.',
    )
  if (isLetOut(peerReview, allocation, now) || allocation.keptBy || allocation.setAsideReason !== null)
    return new Problem(409, 'passedOn', 'This review has been passed on, so it stays as it is.')
  const due = peerReview.plan.phases.find(p => p.name === 'review')?.endsAt
  return due && now > due
    ? new Problem(409, 'over', 'Reviewing is over, so this review stays as it is.')
    : null
}

/** Offers to take more reviews than one owes, or takes the offer back. */
export async function setWilling(
  db: Db,
  { activity, enrolment }: ActivityActor,
  more: number,
): Promise<{ done: boolean }> {
  const values = { activityId: activity.id, seminarId: activity.seminarId, enrolmentId: enrolment.id, more }
  await db
    .insert(willing)
    .values(values)
    .onConflictDoUpdate({ target: [willing.activityId, willing.enrolmentId], set: { more } })
  return { done: true }
}

async function requireOpen(
  tx: Db,
  actor: ReviewerAt,
  now: Date,
): Promise<{ allocation: Allocation; peerReview: LoadedPeerReview; rubric: RubricView | null }> {
  const [allocation] = await tx
    .select()
    .from(allocations)
    .where(eq(allocations.id, actor.allocation.id))
    .for('update')
  if (!allocation) throw reassigned()
  const [peerReview, rubric] = await Promise.all([
    loadPeerReview(tx, actor.activity),
    loadRubric(tx, actor.activity.rubricVersionId),
  ])
  if (allocation.state === 'in')
    throw new Problem(409, 'in', 'This review is handed in. Withdraw it first, then edit it.')
  if (allocation.source !== 'practice' && !hasReviewingBegun(peerReview, now))
    throw new Problem(409, 'early', 'Reviewing has not begun yet.')
  if (practiceBefore(peerReview, allocation))
    throw new Problem(
      409,
      'practiseFirst',
      'Practise first: a sample waits for you in your list. This review opens once that is in.',
    )
  return { allocation, peerReview, rubric }
}

/** What was sent, without anything that is not asked for here; points outside a criterion's scale are refused. */
function soundContent(
  write: ReviewWrite,
  rubric: RubricView | null,
  { settings }: LoadedPeerReview,
): ReviewContent {
  const criteria = rubric?.criteria ?? []
  for (const c of criteria)
    if ((write.points[c.id] ?? 0) > c.max)
      throw refusedField(
        'points',
        'tooMany',
        `“${c.title}” has ${c.max / 100} points; ${write.points[c.id]! / 100} is more.`,
      )
  const pick = <T>(of: Readonly<Record<string, T>>, ids: readonly string[]) =>
    Object.fromEntries(ids.flatMap(id => (of[id] === undefined ? [] : [[id, of[id]]])))
  const ids = criteria.map(c => c.id)
  return {
    points: pick(write.points, ids),
    remarks: pick(write.remarks, ids),
    answers: pick(
      write.answers,
      settings.questions.map(q => q.id),
    ),
    passages: write.passages,
    private: write.private,
  }
}

const sameContent = (a: ReviewContent, b: ReviewContent): boolean => JSON.stringify(a) === JSON.stringify(b)

/** A review as one text, for its record, for finding, for counting words; the words for the instructor alone are not in it. */
export function docOf(
  content: ReviewContent,
  rubric: RubricView | null,
  { settings }: Pick<LoadedPeerReview, 'settings'>,
): RichNode {
  const line = (text: string): RichNode => ({
    type: 'paragraph',
    content: text ? [{ type: 'text', text }] : [],
  })
  const lines = (text: string) =>
    text
      .split('\n')
      .map(t => t.trim())
      .filter(Boolean)
      .map(line)
  const part = (title: string, text: string | undefined): RichNode[] =>
    text?.trim()
      ? [{ type: 'heading', attrs: { level: 3 }, content: [{ type: 'text', text: title }] }, ...lines(text)]
      : []
  const parts = [
    ...(rubric?.criteria ?? []).flatMap(c => part(c.title, content.remarks[c.id])),
    ...settings.questions.flatMap(q => part(q.text, content.answers[q.id])),
    ...content.passages.flatMap((p): RichNode[] => [
      { type: 'blockquote', content: [line(p.exact)] },
      ...lines(p.note),
    ]),
  ]
  return { type: 'doc', content: parts.length > 0 ? parts : [line('')] }
}
