import { requireReviewer } from '#server/access/review'
import { route } from '#server/http/route'
import { reviewDesk } from '#server/services/contributing/review/ownReviews'
import { ReviewDesk, ReviewParams } from '#shared/contributing/review'

export default route({ params: ReviewParams, answer: ReviewDesk }, async ({ event, db, params, now }) =>
  reviewDesk(db, await requireReviewer(event, db, params.reviewId, now), now),
)
