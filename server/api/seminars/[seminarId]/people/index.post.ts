import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { addPerson } from '#server/services/people/people'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.addPerson, async ({ event, db, params, body, now }) =>
  addPerson(db, await requireManager(event, db, params.seminarId), body, now),
)
