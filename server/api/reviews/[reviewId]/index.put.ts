import { reassigned, requireReviewer } from '#server/kinds/review/reviewAccess'
import { route } from '#server/http/route'
import { saveReview } from '#server/kinds/review/saveReview'
import * as reviewEndpoints from '#shared/kinds/review/endpoints'

export default route(reviewEndpoints.saveReview, async ({ event, db, params, body, now }) =>
  saveReview(db, await requireReviewer(event, db, params.reviewId, now, reassigned), body, now),
)
