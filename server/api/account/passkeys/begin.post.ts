import { passkeySite } from '#server/http/passkeySite'
import { passwordAgain } from '#server/http/passwordAgain'
import { route } from '#server/http/route'
import { beginPasskey } from '#server/services/people/passkeys'
import * as passkeyEndpoints from '#shared/people/passkeyEndpoints'

export default route(passkeyEndpoints.beginPasskey, async ({ event, db, body }) => {
  const { person } = await passwordAgain(event, db, body.password)
  return { options: { ...(await beginPasskey(db, person.id, passkeySite(event))) } }
})
