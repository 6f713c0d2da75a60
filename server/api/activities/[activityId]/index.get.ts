import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { activityView } from '#server/services/screens/activityView'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.readActivity, async ({ event, db, params, now }) =>
  activityView(db, await requireActivity(event, db, params.activityId, now), now),
)
