import { requireMarker } from '#server/access/seminar'
import { downloadRoute } from '#server/http/fileRoute'
import { exportClosing } from '#server/services/closing/exportClosing'
import * as closingEndpoints from '#shared/closing/endpoints'

export default downloadRoute(
  closingEndpoints.downloadClosingAnswers,
  async ({ event, db, params, query, now }) =>
    exportClosing(db, await requireMarker(event, db, params.activityId, now), now, query.round),
)
