import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { ownReviews } from '#server/services/contributing/review/ownReviews'
import { ActivityParams } from '#shared/contributing/activity'
import { OwnReviews } from '#shared/contributing/review'

export default route({ params: ActivityParams, answer: OwnReviews }, async ({ event, db, params, now }) =>
  ownReviews(db, await requireActivity(event, db, params.activityId, now), now),
)
