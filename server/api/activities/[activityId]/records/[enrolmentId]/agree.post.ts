import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { agreeSecond } from '#server/services/marking/secondMarks'
import { MarkAct, RecordParams, RecordView } from '#shared/marking/desk'

export default route(
  { params: RecordParams, body: MarkAct, answer: RecordView },
  async ({ event, db, params, body, now }) =>
    agreeSecond(
      db,
      await requireMarker(event, db, params.activityId, now),
      params.enrolmentId,
      body.key,
      now,
    ),
)
