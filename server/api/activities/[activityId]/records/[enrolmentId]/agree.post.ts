import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { agreeSecond } from '#server/services/marking/secondMarks'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.agreeSecondMark, async ({ event, db, params, body, now }) =>
  agreeSecond(db, await requireMarker(event, db, params.activityId, now), params.enrolmentId, body.key, now),
)
