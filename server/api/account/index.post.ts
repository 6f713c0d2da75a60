import { beginSession } from '#server/access/session'
import { route } from '#server/http/route'
import { makeFirstAccount } from '#server/services/people/account'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.makeFirstAccount, async ({ event, db, body }) => {
  const person = await makeFirstAccount(db, body)
  await beginSession(event, db, person.id)
  return { done: true }
})
