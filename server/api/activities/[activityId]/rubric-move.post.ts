import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { moveMarks } from '#server/services/marking/moveMarks'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.moveMarksToRubric, async ({ event, db, params, body, now }) =>
  moveMarks(db, await requireMarker(event, db, params.activityId, now), body, now),
)
