import { requireManager, requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { copyActivity } from '#server/services/composing/copyActivity'
import * as planningEndpoints from '#shared/planning/endpoints'

export default route(planningEndpoints.copyActivity, async ({ event, db, params, body, now }) =>
  copyActivity(
    db,
    await requirePlanner(event, db, params.activityId, false),
    await requireManager(event, db, body.seminarId),
    body,
    now,
  ),
)
