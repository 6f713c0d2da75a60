import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { returnAt } from '#server/services/marking/returnMark'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.scheduleReturn, async ({ event, db, params, body, now }) =>
  returnAt(
    db,
    await requireMarker(event, db, params.activityId, now),
    body.enrolmentIds,
    body.at ? new Date(body.at) : null,
    body.key,
    now,
  ),
)
