import { countPasskey } from '#server/access/limits'
import { clientAddress } from '#server/http/client'
import { passkeySite } from '#server/http/passkeySite'
import { route } from '#server/http/route'
import { beginSignInByPasskey } from '#server/services/people/passkeys'
import * as passkeyEndpoints from '#shared/people/passkeyEndpoints'

export default route(passkeyEndpoints.beginSignInByPasskey, async ({ event, db }) => {
  const site = passkeySite(event)
  await countPasskey(db, clientAddress(event))
  return { options: { ...(await beginSignInByPasskey(db, site)) } }
})
