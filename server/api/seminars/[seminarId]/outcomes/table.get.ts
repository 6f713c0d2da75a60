import { requireInstructor } from '#server/access/seminar'
import { downloadRoute } from '#server/http/fileRoute'
import { exportOutcomes } from '#server/services/marking/outcomes'
import * as markingEndpoints from '#shared/marking/endpoints'

export default downloadRoute(markingEndpoints.downloadOutcomes, async ({ event, db, params, query }) =>
  exportOutcomes(db, await requireInstructor(event, db, params.seminarId), query),
)
