import { requireMarker } from '#server/access/seminar'
import { downloadRoute } from '#server/http/fileRoute'
import { exportClosing } from '#server/services/closing/exportClosing'
import { ActivityParams } from '#shared/contributing/activity'

export default downloadRoute({ params: ActivityParams }, async ({ event, db, params, now }) =>
  exportClosing(db, await requireMarker(event, db, params.activityId, now), now),
)
