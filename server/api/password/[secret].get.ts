import { withSecret } from '#server/access/limits'
import { clientAddress } from '#server/http/client'
import { route } from '#server/http/route'
import { personOfLink } from '#server/services/people/passwords'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.readPasswordLink, ({ event, db, params }) =>
  withSecret(db, clientAddress(event), () => personOfLink(db, params.secret)),
)
