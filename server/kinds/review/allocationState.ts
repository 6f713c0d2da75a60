import type { Allocation } from './peerReview'

/** Somebody else's work, given to a reader: neither their own nor one to practise on. */
export const isReal = (a: Allocation): boolean =>
  a.source === 'dealt' || a.source === 'byHand' || a.source === 'extra'

export const isBegun = (a: Allocation): boolean =>
  a.openedAt !== null || a.reviewId !== null || a.state !== 'owed'

/** There is something of a review, which stays with whoever wrote it. */
export const isWritten = (a: Allocation): boolean => a.reviewId !== null || a.state !== 'owed'
