import { requireReviewer } from '#server/kinds/review/reviewAccess'
import { route } from '#server/http/route'
import { reviewDesk } from '#server/kinds/review/ownReviews'
import * as reviewEndpoints from '#shared/kinds/review/endpoints'

export default route(reviewEndpoints.readReview, async ({ event, db, params, now }) =>
  reviewDesk(db, await requireReviewer(event, db, params.reviewId, now), now),
)
