import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { shareOut } from '#server/services/marking/markers'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.divideMarking, async ({ event, db, params, body, now }) =>
  shareOut(db, await requireMarker(event, db, params.activityId, now), body, now),
)
