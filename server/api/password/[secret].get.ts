import { route } from '#server/http/route'
import { personOfLink } from '#server/services/people/account'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.readPasswordLink, ({ db, params }) => personOfLink(db, params.secret))
