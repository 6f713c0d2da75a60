import { requireStaff } from '#server/access/seminar'
import { downloadRoute } from '#server/http/fileRoute'
import { exportVoices } from '#server/services/voices/exportVoices'
import * as voicesEndpoints from '#shared/voices/endpoints'

export default downloadRoute(voicesEndpoints.downloadVoices, async ({ event, db, params, query, now }) =>
  exportVoices(db, await requireStaff(event, db, params.seminarId), query, now),
)
