import { requireReviewer } from '#server/services/contributing/review/reviewAccess'
import { route } from '#server/http/route'
import { takeReviewBack } from '#server/services/contributing/review/saveReview'
import * as reviewEndpoints from '#shared/contributing/reviewEndpoints'

export default route(reviewEndpoints.takeReviewBack, async ({ event, db, params, body, now }) =>
  takeReviewBack(db, await requireReviewer(event, db, params.reviewId, now), body.key, now),
)
