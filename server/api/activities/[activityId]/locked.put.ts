import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setLocked } from '#server/services/composing/publish'
import * as planningEndpoints from '#shared/planning/endpoints'

export default route(planningEndpoints.lockActivity, async ({ event, db, params, body, now }) => {
  await setLocked(db, await requirePlanner(event, db, params.activityId), body.locked, now)
  return { done: true }
})
