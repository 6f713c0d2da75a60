import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { saveSecond } from '#server/services/marking/secondMarks'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.saveSecondMark, async ({ event, db, params, body, now }) =>
  saveSecond(db, await requireMarker(event, db, params.activityId, now), params.enrolmentId, body, now),
)
