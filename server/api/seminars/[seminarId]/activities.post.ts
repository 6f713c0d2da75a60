import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { makeActivity } from '#server/services/composing/makeActivity'
import * as planningEndpoints from '#shared/planning/endpoints'

export default route(planningEndpoints.makeActivity, async ({ event, db, params, body, now }) =>
  makeActivity(db, await requireManager(event, db, params.seminarId), body, now),
)
