import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { recordView } from '#server/services/marking/record'
import { RecordParams, RecordView } from '#shared/marking/desk'

export default route({ params: RecordParams, answer: RecordView }, async ({ event, db, params, now }) =>
  recordView(db, await requireMarker(event, db, params.activityId, now), params.enrolmentId, now),
)
