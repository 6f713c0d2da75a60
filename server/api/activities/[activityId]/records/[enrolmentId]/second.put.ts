import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { saveSecond } from '#server/services/marking/secondMarks'
import { RecordParams, RecordView, SecondWrite } from '#shared/marking/desk'

export default route(
  { params: RecordParams, body: SecondWrite, answer: RecordView },
  async ({ event, db, params, body, now }) =>
    saveSecond(db, await requireMarker(event, db, params.activityId, now), params.enrolmentId, body, now),
)
