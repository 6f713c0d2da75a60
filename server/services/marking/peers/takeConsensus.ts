import { inArray, sql } from 'drizzle-orm'
import { noteActs } from '#server/services/auditTrail'
import { plainText, type RichNode } from '#core/contributing/richText'
import { consensusOf, type Consensus } from '#core/marking/peers/consensus'
import { reviewingShare } from '#core/marking/peers/reviewingMark'
import { levelAt, peerReviewsOf, reviewingOf } from '#core/marking/peers/fromReviews'
import { nothingHere, type ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { criterionMarks, marks } from '#server/database/schema'
import { Problem } from '#server/http/problem'
import { requireReview } from '#server/kinds'
import { lockMarks, type StoredMark } from '#server/services/marking/lockMarks'
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
    const wanted = [...new Set(write.enrolmentIds)]
    const marked = await lockMarks(tx, actor.activity.id, wanted)
    const judged = wanted.map(id => judgeWork(view, consensus, id, marked.get(id)))
    const taken = judged.flatMap(j => (typeof j.found === 'string' ? [] : [j.found]))
    await storeTaken(tx, actor, view, taken, now)
    const answer: TakeAnswer = {
      taken: taken.map(t => t.enrolmentId),
      left: judged.flatMap(({ enrolmentId, found }) =>
        typeof found === 'string' ? [{ enrolmentId, why: found }] : [],
      ),
    }
    await storePoints(tx, actor, answer.taken, now)
    return answer
  })
}

export const consensusFrom = (view: PeersView): Consensus => {
  const { reviews, criteria, anchors } = peerReviewsOf(view)
  return consensusOf(reviews, criteria, anchors)
}

/** What the readers' consensus makes of one student's mark. */
interface Taken {
  readonly enrolmentId: string
  readonly workId: string
  readonly before: StoredMark | undefined
  readonly steps: ReadonlyArray<{
    readonly criterionId: string
    readonly points: number
    readonly levelId: string
  }>
  readonly letter: RichNode
  readonly reviewing: number | null // ten-thousandths
}

/** What would be taken for one student, or the sentence why it cannot be. */
function judgeWork(
  view: PeersView,
  consensus: Consensus,
  enrolmentId: string,
  before: StoredMark | undefined,
): { readonly enrolmentId: string; readonly found: Taken | string } {
  const work = view.works.find(w => !w.isSample && w.authorIds.includes(enrolmentId))
  const found = work && consensus.authors.get(work.id)
  if (!view.people.some(p => p.id === enrolmentId)) throw nothingHere()
  if (!view.rubric || !found || found.corrected === null)
    return { enrolmentId, found: 'No review that counts has scored every criterion yet.' }
  if (before?.state === 'returned')
    return { enrolmentId, found: 'This mark has been returned. Reopen it first.' }
  const steps = view.rubric.criteria.map(c => {
    const points = Math.round(found.criteria.get(c.id)!.corrected!)
    return { criterionId: c.id, points, levelId: levelAt(c.levels, points).id }
  })
  const { share } = reviewingShare(reviewingOf(view, consensus, enrolmentId), view.settings.weights)
  const hasLetter = before !== undefined && before.letterText !== ''
  return {
    enrolmentId,
    found: {
      ...{ enrolmentId, workId: work.id, before, steps },
      letter: hasLetter ? before.letter : peerLetterOf(view, work, enrolmentId),
      reviewing: view.settings.reviewingPercent > 0 && share !== null ? Math.round(share * 10_000) : null,
    },
  }
}

/** Holds what was taken, with its steps and a line in the audit trail each: one set of statements, however many. */
async function storeTaken(
  tx: Db,
  actor: ActivityActor,
  view: PeersView,
  taken: readonly Taken[],
  now: Date,
): Promise<void> {
  if (taken.length === 0) return
  const same = { seminarId: actor.seminar.id, activityId: actor.activity.id }
  const known = taken.flatMap(t => t.before?.id ?? [])
  const stored = await tx
    .insert(marks)
    .values(
      taken.map(({ enrolmentId, letter, reviewing }) => ({
        ...same,
        ...{ enrolmentId, letter, reviewing, markerNote: '' },
        rubricVersionId: view.rubric!.versionId,
        letterText: plainText(letter),
        takenFrom: 'consensus' as const,
        state: 'held' as const,
        heldAt: now,
        savedAt: now,
        markedBy: actor.enrolment.id,
      })),
    )
    .onConflictDoUpdate({
      target: [marks.activityId, marks.enrolmentId],
      set: {
        rubricVersionId: sql`excluded.rubric_version_id`,
        letter: sql`excluded.letter`,
        letterText: sql`excluded.letter_text`,
        takenFrom: sql`excluded.taken_from`,
        reviewing: sql`excluded.reviewing`,
        overridePoints: null,
        overrideReason: null,
        state: sql`excluded.state`,
        heldAt: sql`excluded.held_at`,
        savedAt: sql`excluded.saved_at`,
        markedBy: sql`excluded.marked_by`,
        version: sql`${marks.version} + 1`,
      },
      // one that came in between is somebody else's, and stays as it is
      setWhere: known.length > 0 ? inArray(marks.id, known) : sql`false`,
    })
    .returning({ id: marks.id, enrolmentId: marks.enrolmentId })
  if (stored.length < taken.length)
    throw new Problem(
      409,
      'changedMeanwhile',
      'Somebody marked one of these students at this moment. Nothing was taken; try again.',
    )
  const markOf = new Map(stored.map(m => [m.enrolmentId, m.id]))
  await tx.delete(criterionMarks).where(inArray(criterionMarks.markId, [...markOf.values()]))
  await tx
    .insert(criterionMarks)
    .values(
      taken.flatMap(({ enrolmentId, steps }) =>
        steps.map(s => ({ ...s, seminarId: actor.seminar.id, markId: markOf.get(enrolmentId)! })),
      ),
    )
  const counted = countedReviews(view)
  await noteActs(
    tx,
    actor,
    now,
    ...taken.map(({ enrolmentId, workId, steps }) => ({
      act: 'consensusTaken' as const,
      subjectId: markOf.get(enrolmentId)!,
      detail: { steps, reviews: counted.get(workId) ?? [] },
    })),
  )
}

/** Ids of the reviews that count, by work. */
function countedReviews(view: PeersView): ReadonlyMap<string, string[]> {
  const byWork = new Map<string, string[]>()
  for (const a of view.allocations)
    if (a.entryId && a.state === 'in' && a.setAside === null && a.source !== 'self')
      byWork.set(a.entryId, [...(byWork.get(a.entryId) ?? []), a.id])
  return byWork
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
