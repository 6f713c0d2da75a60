import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { markHistory } from '#server/services/marking/history'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.readMarkHistory, async ({ event, db, params, now }) =>
  markHistory(db, await requireMarker(event, db, params.activityId, now), params.enrolmentId),
)
