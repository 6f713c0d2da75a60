import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { removeGroupPlan } from '#server/services/people/groups'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.deleteGroupPlan, async ({ event, db, params, now }) => {
  await removeGroupPlan(db, await requireManager(event, db, params.seminarId), params.planId, now)
  return { done: true }
})
