import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { returnHeld } from '#server/services/marking/returnMark'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.returnMarks, async ({ event, db, params, body, now }) =>
  returnHeld(db, await requireMarker(event, db, params.activityId, now), body.enrolmentIds, body.key, now),
)
