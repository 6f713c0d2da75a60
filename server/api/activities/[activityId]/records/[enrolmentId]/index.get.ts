import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { recordView } from '#server/services/marking/record'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.readRecord, async ({ event, db, params, now }) =>
  recordView(db, await requireMarker(event, db, params.activityId, now), params.enrolmentId, now),
)
