import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { undoReturn } from '#server/services/marking/returnMark'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.takeMarkBack, async ({ event, db, params, body, now }) =>
  undoReturn(
    db,
    await requireMarker(event, db, params.activityId, now),
    params.enrolmentId,
    body.key,
    body.baseVersion,
    now,
  ),
)
