import { requirePerson } from '#server/access/session'
import { route } from '#server/http/route'
import { setName } from '#server/services/people/account'
import * as accountEndpoints from '#shared/people/accountEndpoints'

export default route(accountEndpoints.changeName, async ({ event, db, body }) =>
  setName(db, await requirePerson(event), body),
)
