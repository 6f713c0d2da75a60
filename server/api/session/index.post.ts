import { countSignIn } from '#server/access/limits'
import { beginSession, knownBrowser } from '#server/access/session'
import { beginStep } from '#server/access/signInStep'
import { logAbout, logAs } from '#server/http/accessLog'
import { clientAddress } from '#server/http/client'
import { route } from '#server/http/route'
import { hasPasskey, hasSecondStep } from '#server/services/people/secondStep'
import { personByPassword, sessionView } from '#server/services/people/session'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.signIn, async ({ event, db, body }) => {
  logAbout(event, body.email)
  const tries = await countSignIn(db, {
    email: body.email,
    client: clientAddress(event),
    knownBrowser: await knownBrowser(event, db, body.email),
  })
  const person = await personByPassword(db, body.email, body.password)
  await tries.giveBack()
  if (await hasSecondStep(db, person.id)) {
    await beginStep(event, db, person.id)
    logAs(event, 'codeAsked', person.id)
    return { session: null, needsCode: true, hasPasskey: await hasPasskey(db, person.id) }
  }
  await beginSession(event, db, person.id)
  return { session: await sessionView(db, person), needsCode: false, hasPasskey: false }
})
