import { requirePerson } from '#server/access/session'
import { route } from '#server/http/route'
import { setMailChoice } from '#server/services/people/account'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.chooseMail, async ({ event, db, body }) =>
  setMailChoice(db, await requirePerson(event), body.mailChoice),
)
