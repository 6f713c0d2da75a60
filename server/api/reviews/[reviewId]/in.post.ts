import { requireReviewer } from '#server/services/contributing/review/reviewAccess'
import { route } from '#server/http/route'
import { handInReviews } from '#server/services/contributing/review/saveReview'
import * as reviewEndpoints from '#shared/contributing/reviewEndpoints'

export default route(reviewEndpoints.handInReview, async ({ event, db, params, body, now }) =>
  handInReviews(db, await requireReviewer(event, db, params.reviewId, now), body.key, now),
)
