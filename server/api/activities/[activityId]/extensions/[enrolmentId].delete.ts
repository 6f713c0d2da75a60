import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setExtension } from '#server/services/composing/publish'
import * as planningEndpoints from '#shared/planning/endpoints'

export default route(planningEndpoints.removeExtension, async ({ event, db, params, now }) => {
  await setExtension(db, await requirePlanner(event, db, params.activityId), params.enrolmentId, null, now)
  return { done: true }
})
