import type { ReaderRole } from '#core/contributing/readerView'

export interface ReviewSnapshot {
  readonly role: ReaderRole
  readonly isReviewer: boolean
  readonly isSubject: boolean // made what is reviewed, alone or with their group
  readonly state: 'owed' | 'begun' | 'in'
  readonly released: boolean
  readonly setAside: boolean
  readonly isPractice: boolean // of a sample staff put up
  readonly isSelf: boolean
}

export type ReviewReach =
  | 'everything' // staff: with names on both sides, and what was said to the instructor alone
  | 'given' // its reviewer: their own words, and the work without its author
  | 'received' // whose work it is: figures, remarks and answers, without the reviewer and without what was for the instructor
  | 'nothing'

/**
 * How much of one review a reader may get. Precedence:
 * 1. staff get everything, but of a review that is not handed in no more than that it is begun (that is for their views to keep);
 * 2. its reviewer gets what they gave, before and after the release;
 * 3. a review that is not in, not released, set aside, or of a sample reaches nobody else;
 * 4. whose work it is receives it, without a name; one's own review of oneself is one's own already;
 * 5. nobody else gets anything, other reviewers of the same work included.
 */
export function reviewReach(s: ReviewSnapshot): ReviewReach {
  if (s.role === 'staff') return 'everything'
  if (s.isReviewer) return 'given'
  if (s.state !== 'in' || !s.released || s.setAside || s.isPractice) return 'nothing'
  return s.isSubject && !s.isSelf ? 'received' : 'nothing'
}
