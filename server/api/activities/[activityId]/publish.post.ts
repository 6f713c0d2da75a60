import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { publishActivity } from '#server/services/composing/publish'
import * as planningEndpoints from '#shared/planning/endpoints'

export default route(planningEndpoints.publishActivity, async ({ event, db, params, body, now }) =>
  publishActivity(db, await requirePlanner(event, db, params.activityId), body, now),
)
