import { requireReviewer } from '#server/services/contributing/review/reviewAccess'
import { route } from '#server/http/route'
import { noteOpened } from '#server/services/contributing/review/saveReview'
import * as reviewEndpoints from '#shared/contributing/reviewEndpoints'

export default route(reviewEndpoints.recordReviewOpened, async ({ event, db, params, now }) => {
  await noteOpened(db, await requireReviewer(event, db, params.reviewId, now), now)
  return { done: true }
})
