import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { seminarShell } from '#server/services/screens/seminarShell'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.readSeminar, async ({ event, db, params, now }) =>
  seminarShell(db, await requireMember(event, db, params.seminarId), now),
)
