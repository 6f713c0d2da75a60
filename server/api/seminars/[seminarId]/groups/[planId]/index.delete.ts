import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { removeGroupPlan } from '#server/services/people/groups'
import { Done } from '#shared/contributing/thread'
import { GroupPlanParams } from '#shared/people/groups'

export default route({ params: GroupPlanParams, answer: Done }, async ({ event, db, params, now }) => {
  await removeGroupPlan(db, await requireManager(event, db, params.seminarId), params.planId, now)
  return { done: true }
})
