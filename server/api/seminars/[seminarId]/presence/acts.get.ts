import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readPresenceActs } from '#server/services/voices/readPresence'
import * as voicesEndpoints from '#shared/voices/endpoints'

export default route(voicesEndpoints.readPresenceActs, async ({ event, db, params, query, now }) =>
  readPresenceActs(db, await requireStaff(event, db, params.seminarId), query, now),
)
