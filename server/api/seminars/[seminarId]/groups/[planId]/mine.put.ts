import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { chooseGroup } from '#server/services/people/groups'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.chooseGroup, async ({ event, db, params, body, now }) => {
  await chooseGroup(db, await requireMember(event, db, params.seminarId), params.planId, body.groupId, now)
  return { done: true }
})
