import { requireReviewer } from '#server/kinds/review/reviewAccess'
import { route } from '#server/http/route'
import { noteOpened } from '#server/kinds/review/saveReview'
import * as reviewEndpoints from '#shared/kinds/review/endpoints'

export default route(reviewEndpoints.recordReviewOpened, async ({ event, db, params, now }) => {
  await noteOpened(db, await requireReviewer(event, db, params.reviewId, now), now)
  return { done: true }
})
