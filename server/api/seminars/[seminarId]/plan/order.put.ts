import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { orderActivity } from '#server/services/composing/moveActivity'
import * as planningEndpoints from '#shared/planning/endpoints'

export default route(planningEndpoints.orderTermPlan, async ({ event, db, params, body }) =>
  orderActivity(db, await requireManager(event, db, params.seminarId), body),
)
