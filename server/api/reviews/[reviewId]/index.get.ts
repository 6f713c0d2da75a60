import { requireReviewer } from '#server/services/contributing/review/reviewAccess'
import { route } from '#server/http/route'
import { reviewDesk } from '#server/services/contributing/review/ownReviews'
import * as reviewEndpoints from '#shared/contributing/reviewEndpoints'

export default route(reviewEndpoints.readReview, async ({ event, db, params, now }) =>
  reviewDesk(db, await requireReviewer(event, db, params.reviewId, now), now),
)
