import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { markHistory } from '#server/services/marking/history'
import { MarkHistory, RecordParams } from '#shared/marking/desk'

export default route({ params: RecordParams, answer: MarkHistory }, async ({ event, db, params, now }) =>
  markHistory(db, await requireMarker(event, db, params.activityId, now), params.enrolmentId),
)
