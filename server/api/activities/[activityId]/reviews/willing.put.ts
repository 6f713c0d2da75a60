import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setWilling } from '#server/services/contributing/review/saveReview'
import * as reviewEndpoints from '#shared/contributing/reviewEndpoints'

export default route(reviewEndpoints.offerReviews, async ({ event, db, params, body, now }) =>
  setWilling(db, await requireContributor(event, db, params.activityId, now), body.more),
)
