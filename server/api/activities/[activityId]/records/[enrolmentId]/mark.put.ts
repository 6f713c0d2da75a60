import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { saveMark } from '#server/services/marking/saveMark'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.saveMark, async ({ event, db, params, body, now }) =>
  saveMark(db, await requireMarker(event, db, params.activityId, now), params.enrolmentId, body, now),
)
