import { endpoint } from '#shared/http/endpoint'
import { ActivityParams } from '#shared/planning/activityParams'
import {
  AnswerWrite,
  HandedIn,
  HelpfulWrite,
  NamesCheck,
  NamesFound,
  OwnReviews,
  PaperWrite,
  ReceivedParams,
  ReviewDesk,
  ReviewFileParams,
  ReviewHandIn,
  ReviewParams,
  ReviewStored,
  ReviewWrite,
  TextQuery,
  WillingWrite,
} from './review'
import { Done } from '#shared/http/done'

export const findNamesInWork = endpoint({
  method: 'POST',
  path: '/api/activities/:activityId/hand-in/names',
  summary: 'Finds names of classmates in a text that is to be read anonymously',
  params: ActivityParams,
  body: NamesCheck,
  answer: NamesFound,
})

export const handInPaper = endpoint({
  method: 'PUT',
  path: '/api/activities/:activityId/hand-in/paper',
  summary: 'Hands in a paper for review',
  params: ActivityParams,
  body: PaperWrite,
  answer: Done,
})

export const readOwnReviews = endpoint({
  method: 'GET',
  path: '/api/activities/:activityId/reviews',
  summary: "One's own reviews, written and received",
  params: ActivityParams,
  answer: OwnReviews,
})

export const offerReviews = endpoint({
  method: 'PUT',
  path: '/api/activities/:activityId/reviews/willing',
  summary: 'Says how many more reviews one would write',
  params: ActivityParams,
  body: WillingWrite,
  answer: Done,
})

export const answerReview = endpoint({
  method: 'PUT',
  path: '/api/received/:receivedId/answer',
  summary: 'Answers a review one received',
  params: ReceivedParams,
  body: AnswerWrite,
  answer: Done,
})

export const rateReview = endpoint({
  method: 'PUT',
  path: '/api/received/:receivedId/helpful',
  summary: 'Says how helpful a received review was',
  params: ReceivedParams,
  body: HelpfulWrite,
  answer: Done,
})

export const takeReviewBack = endpoint({
  method: 'POST',
  path: '/api/reviews/:reviewId/back',
  summary: 'Takes a handed-in review back to change it',
  params: ReviewParams,
  body: ReviewHandIn,
  answer: HandedIn,
})

export const readReviewedFile = endpoint({
  method: 'GET',
  path: '/api/reviews/:reviewId/files/:place',
  summary: "A file of the work under review, without its author's name",
  params: ReviewFileParams,
  query: TextQuery,
  file: ['*/*'],
})

export const handInReview = endpoint({
  method: 'POST',
  path: '/api/reviews/:reviewId/in',
  summary: 'Hands a review in',
  params: ReviewParams,
  body: ReviewHandIn,
  answer: HandedIn,
})

export const readReview = endpoint({
  method: 'GET',
  path: '/api/reviews/:reviewId',
  summary: 'A review one writes, with the work it is about',
  params: ReviewParams,
  answer: ReviewDesk,
})

export const saveReview = endpoint({
  method: 'PUT',
  path: '/api/reviews/:reviewId',
  summary: 'Keeps a review while it is written',
  params: ReviewParams,
  body: ReviewWrite,
  answer: ReviewStored,
})

export const recordReviewOpened = endpoint({
  method: 'PUT',
  path: '/api/reviews/:reviewId/opened',
  summary: 'Records that the work under review was opened',
  params: ReviewParams,
  answer: Done,
})
