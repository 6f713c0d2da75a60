import { requireReviewer } from '#server/services/contributing/review/reviewAccess'
import { route } from '#server/http/route'
import { saveReview } from '#server/services/contributing/review/saveReview'
import * as reviewEndpoints from '#shared/contributing/reviewEndpoints'

export default route(reviewEndpoints.saveReview, async ({ event, db, params, body, now }) =>
  saveReview(db, await requireReviewer(event, db, params.reviewId, now), body, now),
)
