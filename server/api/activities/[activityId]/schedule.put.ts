import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { moveActivity } from '#server/services/composing/moveActivity'
import * as planningEndpoints from '#shared/planning/endpoints'

export default route(planningEndpoints.changeSchedule, async ({ event, db, params, body, now }) =>
  moveActivity(db, await requirePlanner(event, db, params.activityId), body, now),
)
