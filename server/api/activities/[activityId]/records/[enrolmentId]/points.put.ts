import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setPoints } from '#server/services/marking/gradebook/editGrade'
import { RecordParams } from '#shared/marking/desk'
import { GradeRow, PointsWrite } from '#shared/marking/gradebook'

export default route(
  { params: RecordParams, body: PointsWrite, answer: GradeRow },
  async ({ event, db, params, body, now }) =>
    setPoints(db, await requireMarker(event, db, params.activityId, now), params.enrolmentId, body, now),
)
