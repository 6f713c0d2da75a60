import { beginSession } from '#server/access/session'
import { endStep } from '#server/access/signInStep'
import { passkeySite } from '#server/http/passkeySite'
import { route } from '#server/http/route'
import { personByPasskey } from '#server/services/people/passkeys'
import { personById, sessionView } from '#server/services/people/session'
import * as passkeyEndpoints from '#shared/people/passkeyEndpoints'

export default route(passkeyEndpoints.signInByPasskey, async ({ event, db, body }) => {
  const personId = await personByPasskey(db, body, passkeySite(event))
  await endStep(event, db)
  await beginSession(event, db, personId)
  return { session: await sessionView(db, await personById(db, personId)) }
})
