import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { termPlan } from '#server/services/screens/termPlan'
import * as planningEndpoints from '#shared/planning/endpoints'

export default route(planningEndpoints.readTermPlan, async ({ event, db, params, now }) =>
  termPlan(db, await requireMember(event, db, params.seminarId), now),
)
