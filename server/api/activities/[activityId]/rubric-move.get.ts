import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { moveView } from '#server/services/marking/moveMarks'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.readRubricMove, async ({ event, db, params, now }) =>
  moveView(db, await requireMarker(event, db, params.activityId, now), now),
)
