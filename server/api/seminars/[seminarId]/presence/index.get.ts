import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readPresenceView } from '#server/services/voices/readPresence'
import * as voicesEndpoints from '#shared/voices/endpoints'

export default route(voicesEndpoints.readPresence, async ({ event, db, params, query, now }) =>
  readPresenceView(db, await requireStaff(event, db, params.seminarId), query, now),
)
