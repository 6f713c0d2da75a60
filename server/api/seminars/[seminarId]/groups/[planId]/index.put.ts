import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { saveGroupPlan } from '#server/services/people/groups'
import { GroupPlanParams, GroupPlanWrite } from '#shared/people/groups'
import { PersonAnswer } from '#shared/people/people'

export default route(
  { params: GroupPlanParams, body: GroupPlanWrite, answer: PersonAnswer },
  async ({ event, db, params, body, now }) =>
    saveGroupPlan(db, await requireManager(event, db, params.seminarId), params.planId, body, now),
)
