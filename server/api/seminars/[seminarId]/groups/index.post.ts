import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { makeGroupPlan } from '#server/services/people/groupDealing'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.makeGroupPlan, async ({ event, db, params, body, now }) =>
  makeGroupPlan(db, await requireManager(event, db, params.seminarId), body, now),
)
