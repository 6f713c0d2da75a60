import { beginSession, endAllSessions } from '#server/access/session'
import { route } from '#server/http/route'
import { choosePassword } from '#server/services/people/account'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.setPassword, async ({ event, db, params, body }) => {
  const person = await choosePassword(db, params.secret, body.password)
  await endAllSessions(db, person.id)
  await beginSession(event, db, person.id)
  return { done: true }
})
