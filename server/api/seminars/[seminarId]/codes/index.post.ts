import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { makeCode } from '#server/services/people/joining'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.makeJoiningCode, async ({ event, db, params, body, now }) =>
  makeCode(db, await requireManager(event, db, params.seminarId), body, now),
)
