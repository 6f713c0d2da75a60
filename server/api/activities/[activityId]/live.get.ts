import { requireActivity } from '#server/access/seminar'
import { streamRoute } from '#server/http/streamRoute'
import { subscribeToActivity } from '#server/live/subscribeToActivity'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default streamRoute(
  contributingEndpoints.followActivity,
  ({ event, db, params, now }) => requireActivity(event, db, params.activityId, now),
  subscribeToActivity,
)
