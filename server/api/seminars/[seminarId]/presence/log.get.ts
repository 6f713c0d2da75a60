import { requireStaff } from '#server/access/seminar'
import { downloadRoute } from '#server/http/fileRoute'
import { exportPresence } from '#server/services/voices/presenceLog'
import * as voicesEndpoints from '#shared/voices/endpoints'

export default downloadRoute(voicesEndpoints.downloadPresenceLog, async ({ event, db, params, query, now }) =>
  exportPresence(db, await requireStaff(event, db, params.seminarId), query, now),
)
