import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setExcused } from '#server/services/marking/gradebook/editGrade'
import { RecordParams } from '#shared/marking/desk'
import { ExcusedWrite, GradeRow } from '#shared/marking/gradebook'

export default route(
  { params: RecordParams, body: ExcusedWrite, answer: GradeRow },
  async ({ event, db, params, body, now }) =>
    setExcused(db, await requireMarker(event, db, params.activityId, now), params.enrolmentId, body, now),
)
