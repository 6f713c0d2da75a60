import { endpoint } from '../http/endpoint'
import { ActivityParams } from '../planning/activityParams'
import { Done } from '../http/done'
import {
  AllocationParams,
  ApartWrite,
  DealWrite,
  JudgeWrite,
  PairsWrite,
  PeersView,
  ReleaseWrite,
  RemindWrite,
  RepairPlan,
  RepairView,
  SampleParams,
  SampleWrite,
  SharesWrite,
  TakeAnswer,
  TakeWrite,
  UndoTakeWrite,
  NotifiedCount,
  Version,
} from './peers'

export const judgeReview = endpoint({
  method: 'PUT',
  path: '/api/activities/:activityId/peers/allocations/:allocationId',
  summary: 'Judges one review: counted or not, with how much',
  params: AllocationParams,
  body: JudgeWrite,
  answer: Done,
})

export const keepReviewersApart = endpoint({
  method: 'PUT',
  path: '/api/activities/:activityId/peers/apart',
  summary: 'Sets who never reviews whom',
  params: ActivityParams,
  body: ApartWrite,
  answer: Done,
})

export const dealReviewers = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/peers/deal',
  summary: 'Reassigns reviewers',
  params: ActivityParams,
  body: DealWrite,
  answer: Version,
})

export const undealReviewers = endpoint({
  method: 'DELETE',
  path: '/api/activities/:activityId/peers/deal',
  summary: 'Takes the assigning of reviewers back, while none has opened anything',
  params: ActivityParams,
  answer: Version,
})

export const readPeers = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/peers',
  summary: 'The reviews of an activity for its instructors',
  params: ActivityParams,
  answer: PeersView,
})

export const setReviewPairs = endpoint({
  method: 'PUT',
  path: '/api/activities/:activityId/peers/pairs',
  summary: 'Changes single pairs of reviewer and reviewed',
  params: ActivityParams,
  body: PairsWrite,
  answer: Version,
})

export const releaseReviews = endpoint({
  method: 'PUT',
  path: '/api/activities/:activityId/peers/release',
  logged: 'reviewsReleased',
  summary: 'Releases the reviews to those who were reviewed, or holds them',
  params: ActivityParams,
  body: ReleaseWrite,
  answer: Done,
})

export const remindReviewers = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/peers/remind',
  summary: 'Reminds reviewers who have not handed in',
  params: ActivityParams,
  body: RemindWrite,
  answer: NotifiedCount,
})

export const repairReviews = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/peers/repair',
  summary: 'Finds or makes reviews for work that has too few',
  params: ActivityParams,
  body: RepairPlan,
  answer: RepairView,
})

export const removeSample = endpoint({
  method: 'DELETE',
  path: '/api/activities/:activityId/peers/samples/:entryId',
  summary: 'Removes a sample from the training of reviewers',
  params: SampleParams,
  answer: Done,
})

export const addSample = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/peers/samples',
  summary: 'Adds a sample to the training of reviewers',
  params: ActivityParams,
  body: SampleWrite,
  answer: Done,
})

export const proposeShares = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/peers/shares',
  summary: 'Proposes factors from what teammates said of each other',
  params: ActivityParams,
  body: SharesWrite,
  answer: TakeAnswer,
})

export const proposePeerMarks = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/peers/take',
  summary: 'Takes the consensus of reviewers, or own points, as held marks',
  params: ActivityParams,
  body: TakeWrite,
  answer: TakeAnswer,
})

export const undoPeerMarks = endpoint({
  method: 'DELETE',
  path: '/api/activities/:activityId/peers/take',
  summary: 'Puts marks back as they were before points were taken',
  params: ActivityParams,
  body: UndoTakeWrite,
  answer: TakeAnswer,
})
