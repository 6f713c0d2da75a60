import { countSignIn } from '#server/access/limits'
import { beginSession, knownBrowser } from '#server/access/session'
import { clientAddress } from '#server/http/client'
import { route } from '#server/http/route'
import { personByPassword, sessionView } from '#server/services/people/session'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.signIn, async ({ event, db, body }) => {
  const tries = await countSignIn(db, {
    email: body.email,
    client: clientAddress(event),
    knownBrowser: await knownBrowser(event, db, body.email),
  })
  const person = await personByPassword(db, body.email, body.password)
  await tries.giveBack()
  await beginSession(event, db, person.id)
  return { session: await sessionView(db, person) }
})
