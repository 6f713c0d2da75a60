import { inArray } from 'drizzle-orm'
import { noteActs } from '#server/services/auditTrail'
import type { RichNode } from '#core/contributing/richText'
import { consensusOf, type AuthorConsensus, type Consensus } from '#core/marking/peers/consensus'
import { reviewingShare, toldOf, type ReviewingTold } from '#core/marking/peers/reviewingMark'
import {
  doesCount,
  levelAt,
  ownPointsOf,
  peerReviewsOf,
  reviewedIn,
  reviewingOf,
} from '#core/marking/peers/fromReviews'
import { nothingHere, type ActivityActor } from '#server/access/seminar'
import type { Database, Db } from '#server/database/client'
import { criterionMarks, type MarkBeforeTake, type StoredStep } from '#server/database/schema'
import { requireReview } from '#server/kinds'
import { lockMarks, type StoredMark } from '#server/services/marking/lockMarks'
import { storePoints } from '#server/services/marking/storePoints'
import { withIdempotency } from '#server/services/idempotency'
import type { RubricView } from '#shared/contributing/activity'
import type { PeersView, TakeAnswer } from '#shared/marking/peers'
import { peersView } from './peersView'
import { storeMarks } from './takenMarks'

/**
 * Takes the corrected consensus, or the marker's own points, as the mark of each, with what the student's own reviewing came
 * to. The mark is held, to be looked at and returned like any other; a letter already begun stays, and so do own points
 * beside a consensus. What stood there before is kept, for undoing.
 */
export function takeConsensus(
  db: Database,
  actor: ActivityActor,
  write: {
    readonly key: string
    readonly enrolmentIds: readonly string[]
    readonly what: 'consensus' | 'own'
  },
  now: Date,
): Promise<TakeAnswer> {
  requireReview(actor.activity)
  return withIdempotency(db, actor.enrolment, write.key, async tx => {
    const view = await peersView(tx, actor, now)
    const consensus = consensusFrom(view)
    const wanted = [...new Set(write.enrolmentIds)]
    const marked = await lockMarks(tx, actor.activity.id, wanted)
    const judged = wanted.map(id => judgeWork(view, consensus, id, marked.get(id), write.what))
    const taken = judged.flatMap(j => (typeof j.found === 'string' ? [] : [j.found]))
    await storeTaken(tx, actor, { view, taken, what: write.what }, now)
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

/** What becomes one student's mark. */
interface Taken {
  readonly enrolmentId: string
  readonly workId: string
  readonly before: StoredMark | undefined
  readonly steps: readonly StoredStep[]
  readonly letter: RichNode
  readonly reviewing: number | null // ten-thousandths
  readonly reviewingParts: ReviewingTold | null
}

/** What would be taken for one student, or the sentence why it cannot be. */
function judgeWork(
  view: PeersView,
  consensus: Consensus,
  enrolmentId: string,
  before: StoredMark | undefined,
  what: 'consensus' | 'own',
): { readonly enrolmentId: string; readonly found: Taken | string } {
  const work = reviewedOf(view, enrolmentId)
  if (!view.people.some(p => p.id === enrolmentId)) throw nothingHere()
  if (!work || !view.rubric) return { enrolmentId, found: NO_REVIEW }
  const steps =
    what === 'consensus' ? readersSteps(view, consensus.authors.get(work.id)) : ownSteps(view, work)
  if (typeof steps === 'string') return { enrolmentId, found: steps }
  if (before?.state === 'returned')
    return { enrolmentId, found: 'This mark has been returned. Reopen it first.' }
  const own = reviewingOf(view, consensus, enrolmentId)
  const { share } = reviewingShare(own, view.settings.weights)
  const counts = view.settings.reviewingPercent > 0 && share !== null
  const hasLetter = before !== undefined && before.letterText !== ''
  return {
    enrolmentId,
    found: {
      ...{ enrolmentId, workId: work.id, before, steps },
      letter: hasLetter ? before.letter : peerLetterOf(view, work, enrolmentId),
      reviewing: counts ? Math.round(share * 10_000) : null,
      reviewingParts: counts ? toldOf(own) : null,
    },
  }
}

const NO_REVIEW = 'No review that counts has scored every criterion yet.'

/** What of a student was reviewed: their work, or, among teammates, themselves. */
type Reviewed = Pick<PeersView['works'][number], 'id' | 'authorIds' | 'authorId'>
const reviewedOf = (view: PeersView, enrolmentId: string): Reviewed | undefined =>
  view.settings.subject === 'teammates'
    ? { id: enrolmentId, authorIds: [enrolmentId], authorId: enrolmentId }
    : view.works.find(w => !w.isSample && w.authorIds.includes(enrolmentId))

/** Of a work the corrected scores; of a teammate the mean of what the others of the group gave, as the table of the group shows it. */
function readersSteps(view: PeersView, found: AuthorConsensus | undefined): StoredStep[] | string {
  const figure = view.settings.subject === 'teammates' ? 'mean' : 'corrected'
  if (!found || found[figure] === null) return NO_REVIEW
  return view.rubric!.criteria.map(c => stepOf(c, Math.round(found.criteria.get(c.id)![figure]!)))
}
/** The marker's own points for a work; authors of one work share them. */
function ownSteps(view: PeersView, work: Reviewed): StoredStep[] | string {
  const own = ownPointsOf(view.marks, work)
  const steps = view.rubric!.criteria.flatMap(c => (own[c.id] === undefined ? [] : [stepOf(c, own[c.id]!)]))
  return steps.length < view.rubric!.criteria.length
    ? 'You have not given points of your own for every criterion yet.'
    : steps
}
const stepOf = (c: RubricView['criteria'][number], points: number): StoredStep => ({
  criterionId: c.id,
  points,
  levelId: levelAt(c.levels, points).id,
})

/** Holds what was taken, with a line in the audit trail each. */
async function storeTaken(
  tx: Db,
  actor: ActivityActor,
  { view, taken, what }: { view: PeersView; taken: readonly Taken[]; what: 'consensus' | 'own' },
  now: Date,
): Promise<void> {
  const known = taken.flatMap(t => t.before?.id ?? [])
  const stepsBefore =
    known.length === 0
      ? []
      : await tx.select().from(criterionMarks).where(inArray(criterionMarks.markId, known))
  const markOf = await storeMarks(
    tx,
    actor,
    taken.map(({ enrolmentId, steps, letter, reviewing, reviewingParts, before }) => ({
      ...{ enrolmentId, steps, letter, reviewing, reviewingParts, known: before },
      rubricVersionId: view.rubric!.versionId,
      overridePoints: null,
      overrideReason: null,
      takenFrom: what === 'consensus' ? ('consensus' as const) : null,
      state: 'held' as const,
      heldAt: now.toISOString(),
      savedAt: now.toISOString(),
      markedBy: actor.enrolment.id,
      beforeTake: {
        version: (before?.version ?? 0) + 1,
        mark: before ? snapshot(before, stepsBefore) : null,
      },
    })),
  )
  const counted = countedReviews(view)
  await noteActs(
    tx,
    actor,
    now,
    ...taken.map(({ enrolmentId, workId, steps }) => ({
      act: what === 'consensus' ? ('consensusTaken' as const) : ('ownPointsTaken' as const),
      subjectId: markOf.get(enrolmentId)!,
      detail: { steps, reviews: counted.get(workId) ?? [] },
    })),
  )
}

function snapshot(
  mark: StoredMark,
  steps: ReadonlyArray<StoredStep & { readonly markId: string }>,
): MarkBeforeTake {
  const { state, rubricVersionId, letter, overridePoints, overrideReason, takenFrom, markedBy } = mark
  return {
    ...{ state, rubricVersionId, letter, overridePoints, overrideReason, takenFrom, markedBy },
    reviewing: mark.reviewing,
    reviewingParts: mark.reviewingParts,
    heldAt: mark.heldAt?.toISOString() ?? null,
    savedAt: mark.savedAt.toISOString(),
    steps: steps
      .filter(s => s.markId === mark.id)
      .map(({ criterionId, levelId, points }) => ({ criterionId, levelId, points })),
  }
}

/** Ids of the reviews that count, by work. */
function countedReviews(view: PeersView): ReadonlyMap<string, string[]> {
  const byWork = new Map<string, string[]>()
  for (const a of view.allocations)
    if (doesCount(a)) byWork.set(reviewedIn(a), [...(byWork.get(reviewedIn(a)) ?? []), a.id])
  return byWork
}

/** A letter to begin with: what readers said, criterion by criterion, without their names. */
export function peerLetterOf(view: PeersView, work: Reviewed, enrolmentId: string): RichNode {
  const given = view.allocations.filter(
    a => reviewedIn(a) === work.id && doesCount(a) && a.source !== 'practice',
  )
  const isOfTeammates = view.settings.subject === 'teammates'
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
          {
            type: 'text',
            text: isOfTeammates ? 'A teammate: ' : 'One reader: ',
            marks: [{ type: 'italic' }],
          },
          text(r.replace(/\s+/g, ' ')),
        ),
      ),
    ]
  })
  return {
    type: 'doc',
    content: [line(text(`Dear ${name},`)), line(text(introOf(given.length, isOfTeammates))), ...parts],
  }
}

function introOf(readers: number, isOfTeammates: boolean): string {
  if (isOfTeammates)
    return `this is what ${readers === 1 ? 'a teammate' : `${readers} teammates`} made of your part in the work.`
  return `this is what ${readers === 1 ? 'a classmate' : `${readers} classmates`} made of your work.`
}
