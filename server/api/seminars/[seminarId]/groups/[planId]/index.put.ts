import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { saveGroupPlan } from '#server/services/people/groups'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.saveGroupPlan, async ({ event, db, params, body, now }) =>
  saveGroupPlan(db, await requireManager(event, db, params.seminarId), params.planId, body, now),
)
