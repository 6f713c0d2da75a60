// What people write and hand in, of every kind. This is what other areas may use of it.
export { announce } from './announce'
export { discussionGroupOf } from './discussionGroups'
export { nextSeq } from './numbering'
export { firstNotes } from './reading/firstNotes'
export { copyText, currentVersion, settableTexts } from './reading/library'
export { cleanText } from './reading/sections'
export { knownPeople } from './review/names'
export { reviewRows } from './review/ownReviews'
export {
  type Allocation,
  type LoadedPeerReview,
  dueOf,
  loadPeerReview,
  lockPeerReview,
  phaseOf,
  requireReview,
} from './review/peerReview'
export { contentOf } from './review/shapeReview'
export { dealStanding } from './review/standing'
export { writesByPage } from './shapeForReader'
export { shapedThread, textsOf } from './shapedThread'
export { attachedFiles } from './storedContributions'
export { changesOf } from './wiki/changesOf'
export { readablePages } from './wiki/findPages'
export { draftView } from './writing/draft'
export { isWrittenHere } from './written'
