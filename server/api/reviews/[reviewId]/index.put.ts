import { requireReviewer } from '#server/access/review'
import { route } from '#server/http/route'
import { saveReview } from '#server/services/contributing/review/saveReview'
import { ReviewParams, ReviewStored, ReviewWrite } from '#shared/contributing/review'

export default route(
  { params: ReviewParams, body: ReviewWrite, answer: ReviewStored },
  async ({ event, db, params, body, now }) =>
    saveReview(db, await requireReviewer(event, db, params.reviewId, now), body, now),
)
