import { route } from '#server/http/route'
import { installation } from '#server/services/people/account'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.readInstallation, ({ db }) => installation(db))
