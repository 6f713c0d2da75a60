import { withSecret } from '#server/access/limits'
import { clientAddress } from '#server/http/client'
import { route } from '#server/http/route'
import { addressOfLink } from '#server/services/people/addresses'
import * as accountEndpoints from '#shared/people/accountEndpoints'

export default route(accountEndpoints.readAddressLink, ({ event, db, params }) =>
  withSecret(db, clientAddress(event), () => addressOfLink(db, params.secret)),
)
