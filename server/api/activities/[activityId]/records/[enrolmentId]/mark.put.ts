import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { saveMark } from '#server/services/marking/saveMark'
import { MarkView, MarkWrite, RecordParams } from '#shared/marking/desk'

export default route(
  { params: RecordParams, body: MarkWrite, answer: MarkView },
  async ({ event, db, params, body, now }) =>
    saveMark(db, await requireMarker(event, db, params.activityId, now), params.enrolmentId, body, now),
)
