import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { dealAgain } from '#server/services/people/groupDealing'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.dealGroups, async ({ event, db, params, body, now }) =>
  dealAgain(db, await requireManager(event, db, params.seminarId), params.planId, body, now),
)
