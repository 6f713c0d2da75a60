import { requirePerson } from '#server/access/session'
import { route } from '#server/http/route'
import { setCalendar } from '#server/services/people/account'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.makeCalendar, async ({ event, db }) =>
  setCalendar(db, await requirePerson(event), true),
)
