import { requireReviewer } from '#server/access/review'
import { route } from '#server/http/route'
import { takeReviewBack } from '#server/services/contributing/review/saveReview'
import { HandedIn, ReviewHandIn, ReviewParams } from '#shared/contributing/review'

export default route(
  { params: ReviewParams, body: ReviewHandIn, answer: HandedIn },
  async ({ event, db, params, body, now }) =>
    takeReviewBack(db, await requireReviewer(event, db, params.reviewId, now), body.key, now),
)
