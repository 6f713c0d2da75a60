import { requirePerson } from '#server/access/session'
import { route } from '#server/http/route'
import { foundSeminar } from '#server/services/planning/foundSeminar'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.makeSeminar, async ({ event, db, body, now }) =>
  foundSeminar(db, await requirePerson(event), body, now),
)
