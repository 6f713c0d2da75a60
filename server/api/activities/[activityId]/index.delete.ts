import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { removeActivity } from '#server/services/composing/removeActivity'
import * as planningEndpoints from '#shared/planning/endpoints'

export default route(planningEndpoints.deleteActivity, async ({ event, db, params, now }) => {
  await removeActivity(db, await requirePlanner(event, db, params.activityId), now)
  return { done: true }
})
