import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { effectOf } from '#server/services/composing/effect'
import * as planningEndpoints from '#shared/planning/endpoints'

export default route(planningEndpoints.readPlanEffect, async ({ event, db, params, body, now }) =>
  effectOf(db, await requirePlanner(event, db, params.activityId, false), body.change, now),
)
