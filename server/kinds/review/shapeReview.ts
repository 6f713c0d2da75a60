import { detailOf, type Detailed } from '#core/kinds/contributionDetail'
import type { ReviewContent } from '#core/kinds/review/reviewContent'
import { reviewReach } from '#core/kinds/review/reviewReach'
import { lacksOf } from '#core/kinds/review/missing'
import type { Enrolment } from '#server/access/seminar'
import type { contributions } from '#server/database/schema'
import { readerRole } from '#server/services/contributing'
import type { RubricView } from '#shared/contributing/activity'
import type { GivenHead, ReceivedReview, ReviewGiven } from '#shared/kinds/review/review'
import { isLetOut, type Allocation, type Entry, type LoadedPeerReview } from './peerReview'

export type ReviewRow = Pick<
  typeof contributions.$inferSelect,
  'id' | 'type' | 'detail' | 'words' | 'version' | 'state' | 'text' | 'savedAt'
>
export const NOTHING_GIVEN: ReviewContent = {
  points: {},
  remarks: {},
  answers: {},
  passages: [],
  private: '',
}

/**
 * Who of a review a reader is, and what that opens to them: the one place that decides for reviews, as
 * `shapeForReader` does for contributions.
 */
export function reachOfReview(
  peerReview: Pick<LoadedPeerReview, 'settings' | 'row'>,
  allocation: Allocation,
  entry: Entry | null,
  enrolment: Enrolment,
  now: Date,
) {
  const owners = entry ? entry.ownerIds : [allocation.subjectId]
  return reviewReach({
    role: readerRole(enrolment),
    isReviewer: allocation.reviewerId === enrolment.id,
    isSubject: owners.includes(enrolment.id),
    state: allocation.state,
    released: isLetOut(peerReview, allocation, now),
    setAside: allocation.setAsideReason !== null,
    isPractice: allocation.source === 'practice',
    isSelf: owners.includes(allocation.reviewerId),
  })
}

export const contentOf = (row: Detailed | undefined): ReviewContent =>
  (row && detailOf(row, 'review').review) ?? NOTHING_GIVEN

/** What a reviewer has given, back to them. */
export const givenView = (row: ReviewRow | undefined): ReviewGiven =>
  structuredClone(contentOf(row)) as ReviewGiven

/** One line of a reviewer's list. */
export function givenHead(
  allocation: Allocation,
  row: ReviewRow | undefined,
  called: string,
  rubric: RubricView | null,
  { settings }: Pick<LoadedPeerReview, 'settings'>,
): GivenHead {
  return {
    id: allocation.id,
    called,
    kind: kindOf(allocation),
    state: allocation.state,
    words: row?.words ?? 0,
    setAside: allocation.setAsideTold ? allocation.setAsideReason : null,
    missing: lacksOf(contentOf(row), {
      criteria: rubric?.criteria ?? [],
      questions: settings.questions,
      remarkWords: settings.remarkWords,
    }).length,
  }
}

export function kindOf(
  allocation: Pick<Allocation, 'source' | 'entryId' | 'reviewerId' | 'subjectId'>,
): GivenHead['kind'] {
  if (allocation.source === 'practice') return 'practice'
  if (allocation.source === 'self' || allocation.reviewerId === allocation.subjectId) return 'self'
  return allocation.entryId ? 'work' : 'teammate'
}

/** What an author receives: never the reviewer, never when, never what was said to the instructor alone. */
export function receivedView(allocation: Allocation, row: ReviewRow, from: string): ReceivedReview {
  const { points, remarks, answers, passages } = givenView(row)
  return {
    id: allocation.receivedId,
    from,
    points,
    remarks,
    answers,
    passages,
    helpful: allocation.helpful,
    answerHtml: allocation.answerHtml,
  }
}
