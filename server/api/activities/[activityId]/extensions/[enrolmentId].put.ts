import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setExtension } from '#server/services/composing/publish'
import * as planningEndpoints from '#shared/planning/endpoints'

export default route(planningEndpoints.giveExtension, async ({ event, db, params, body, now }) => {
  await setExtension(db, await requirePlanner(event, db, params.activityId), params.enrolmentId, body, now)
  return { done: true }
})
