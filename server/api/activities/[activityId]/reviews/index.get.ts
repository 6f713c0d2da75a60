import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { ownReviews } from '#server/kinds/review/ownReviews'
import * as reviewEndpoints from '#shared/kinds/review/endpoints'

export default route(reviewEndpoints.readOwnReviews, async ({ event, db, params, now }) =>
  ownReviews(db, await requireActivity(event, db, params.activityId, now), now),
)
