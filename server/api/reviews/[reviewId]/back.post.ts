import { requireReviewer } from '#server/kinds/review/reviewAccess'
import { route } from '#server/http/route'
import { takeReviewBack } from '#server/kinds/review/saveReview'
import * as reviewEndpoints from '#shared/kinds/review/endpoints'

export default route(reviewEndpoints.takeReviewBack, async ({ event, db, params, body, now }) =>
  takeReviewBack(db, await requireReviewer(event, db, params.reviewId, now), body.key, now),
)
