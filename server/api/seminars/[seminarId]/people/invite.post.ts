import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { invite } from '#server/services/people/people'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.invitePeople, async ({ event, db, params, body, now }) =>
  invite(db, await requireManager(event, db, params.seminarId), body.key, body.enrolmentIds, now),
)
