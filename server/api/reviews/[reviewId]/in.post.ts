import { reassigned, requireReviewer } from '#server/kinds/review/reviewAccess'
import { route } from '#server/http/route'
import { handInReviews } from '#server/kinds/review/saveReview'
import * as reviewEndpoints from '#shared/kinds/review/endpoints'

export default route(reviewEndpoints.handInReview, async ({ event, db, params, body, now }) =>
  handInReviews(db, await requireReviewer(event, db, params.reviewId, now, reassigned), body.key, now),
)
