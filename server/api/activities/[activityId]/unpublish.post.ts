import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { unpublishActivity } from '#server/services/composing/publish'
import * as planningEndpoints from '#shared/planning/endpoints'

export default route(planningEndpoints.unpublishActivity, async ({ event, db, params, body, now }) =>
  unpublishActivity(db, await requirePlanner(event, db, params.activityId), body, now),
)
