import { beginSession } from '#server/access/session'
import { route } from '#server/http/route'
import { requireDemoPerson } from '#server/services/people/session'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.signInAsDemoPerson, async ({ event, db, body }) => {
  const person = await requireDemoPerson(db, body.personId)
  await beginSession(event, db, person.id)
  return { done: true }
})
