import { requirePerson } from '#server/access/session'
import { route } from '#server/http/route'
import { accountView } from '#server/services/people/account'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.readAccount, async ({ event, db }) =>
  accountView(db, await requirePerson(event)),
)
