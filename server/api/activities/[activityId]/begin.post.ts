import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { beginPhase } from '#server/services/composing/beginPhase'
import * as planningEndpoints from '#shared/planning/endpoints'

export default route(planningEndpoints.beginPhase, async ({ event, db, params, body, now }) =>
  beginPhase(db, await requirePlanner(event, db, params.activityId), body, now),
)
