import { requireSession } from '#server/access/session'
import { passkeySite } from '#server/http/passkeySite'
import { route } from '#server/http/route'
import { addPasskey } from '#server/services/people/passkeys'
import * as passkeyEndpoints from '#shared/people/passkeyEndpoints'

export default route(passkeyEndpoints.addPasskey, async ({ event, db, body }) => ({
  codes: await addPasskey(db, await requireSession(event), body, passkeySite(event)),
}))
