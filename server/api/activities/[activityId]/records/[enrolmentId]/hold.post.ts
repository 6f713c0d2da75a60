import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { holdMark } from '#server/services/marking/returnMark'
import { MarkAct, MarkView, RecordParams } from '#shared/marking/desk'

export default route(
  { params: RecordParams, body: MarkAct, answer: MarkView },
  async ({ event, db, params, body, now }) =>
    holdMark(
      db,
      await requireMarker(event, db, params.activityId, now),
      params.enrolmentId,
      body.key,
      body.baseVersion,
      now,
    ),
)
