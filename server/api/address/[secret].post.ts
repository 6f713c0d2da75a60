import { withSecret } from '#server/access/limits'
import { clientAddress } from '#server/http/client'
import { route } from '#server/http/route'
import { confirmAddress } from '#server/services/people/addresses'
import * as accountEndpoints from '#shared/people/accountEndpoints'

export default route(accountEndpoints.confirmAddress, async ({ event, db, params }) => {
  await withSecret(db, clientAddress(event), () => confirmAddress(db, params.secret))
  return { done: true }
})
