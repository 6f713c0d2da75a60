import { forgetAttempts, limitAttempts } from '#server/access/attempts'
import { beginSession } from '#server/access/session'
import { route } from '#server/http/route'
import { personByPassword, sessionView } from '#server/services/people/session'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.signIn, async ({ event, db, body }) => {
  await limitAttempts(db, body.email)
  const person = await personByPassword(db, body.email, body.password)
  await forgetAttempts(db, body.email)
  await beginSession(event, db, person.id)
  return { session: await sessionView(db, person) }
})
