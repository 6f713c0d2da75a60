import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { composerView } from '#server/services/composing/composer'
import * as planningEndpoints from '#shared/planning/endpoints'

export default route(planningEndpoints.readPlannedActivity, async ({ event, db, params, now }) =>
  composerView(db, await requirePlanner(event, db, params.activityId, false), now),
)
