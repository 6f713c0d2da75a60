import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { chooseGroup } from '#server/services/people/groups'
import { Done } from '#shared/contributing/thread'
import { GroupPlanParams, OwnGroupWrite } from '#shared/people/groups'

export default route(
  { params: GroupPlanParams, body: OwnGroupWrite, answer: Done },
  async ({ event, db, params, body, now }) => {
    await chooseGroup(db, await requireMember(event, db, params.seminarId), params.planId, body.groupId, now)
    return { done: true }
  },
)
