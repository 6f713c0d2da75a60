import { getPerson } from '#server/access/session'
import { route } from '#server/http/route'
import { sessionView } from '#server/services/people/session'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.readSession, async ({ event, db }) => {
  const person = await getPerson(event)
  return { session: person && (await sessionView(db, person)) }
})
