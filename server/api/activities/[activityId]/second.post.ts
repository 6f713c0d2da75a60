import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { askSecond } from '#server/services/marking/secondMarks'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.askSecondMarker, async ({ event, db, params, body, now }) =>
  askSecond(db, await requireMarker(event, db, params.activityId, now), body, now),
)
