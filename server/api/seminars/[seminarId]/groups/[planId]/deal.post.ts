import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { dealAgain } from '#server/services/people/groupDealing'
import { GroupDeal, GroupPlanParams } from '#shared/people/groups'
import { PersonAnswer } from '#shared/people/people'

export default route(
  { params: GroupPlanParams, body: GroupDeal, answer: PersonAnswer },
  async ({ event, db, params, body, now }) =>
    dealAgain(db, await requireManager(event, db, params.seminarId), params.planId, body, now),
)
