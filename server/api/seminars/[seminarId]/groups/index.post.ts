import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { makeGroupPlan } from '#server/services/people/groupDealing'
import { GroupPlanMake } from '#shared/people/groups'
import { PersonAnswer } from '#shared/people/people'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, body: GroupPlanMake, answer: PersonAnswer },
  async ({ event, db, params, body, now }) =>
    makeGroupPlan(db, await requireManager(event, db, params.seminarId), body, now),
)
