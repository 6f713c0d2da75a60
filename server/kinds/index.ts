// What each kind of activity does in its own way. This is what other areas may use of it.
export { copyText, currentVersion, settableTexts } from './reading/library'
export { cleanText } from './reading/sections'
export { knownPeople } from './review/names'
export { entryOf, reviewRows } from './review/ownReviews'
export {
  type Allocation,
  type LoadedPeerReview,
  dueOf,
  hasReviewingBegun,
  loadPeerReview,
  lockPeerReview,
  phaseOf,
  requireReview,
  waitingReviews,
} from './review/peerReview'
export { contentOf } from './review/shapeReview'
export { changesOf } from './wiki/changesOf'
