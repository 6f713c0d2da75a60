import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setWilling } from '#server/kinds/review/saveReview'
import * as reviewEndpoints from '#shared/kinds/review/endpoints'

export default route(reviewEndpoints.offerReviews, async ({ event, db, params, body, now }) =>
  setWilling(db, await requireContributor(event, db, params.activityId, now), body.more),
)
