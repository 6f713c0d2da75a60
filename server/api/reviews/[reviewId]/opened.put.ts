import { requireReviewer } from '#server/access/review'
import { route } from '#server/http/route'
import { noteOpened } from '#server/services/contributing/review/saveReview'
import { ReviewParams } from '#shared/contributing/review'
import { Done } from '#shared/contributing/thread'

export default route({ params: ReviewParams, answer: Done }, async ({ event, db, params, now }) => {
  await noteOpened(db, await requireReviewer(event, db, params.reviewId, now), now)
  return { done: true }
})
