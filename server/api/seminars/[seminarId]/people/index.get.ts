import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { peopleView } from '#server/services/people/people'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.readPeople, async ({ event, db, params, now }) =>
  peopleView(db, await requireStaff(event, db, params.seminarId), now),
)
