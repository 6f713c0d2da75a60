import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { changeActivity } from '#server/services/composing/changeActivity'
import * as planningEndpoints from '#shared/planning/endpoints'

export default route(planningEndpoints.changePlannedActivity, async ({ event, db, params, body, now }) =>
  changeActivity(db, await requirePlanner(event, db, params.activityId), body, now),
)
