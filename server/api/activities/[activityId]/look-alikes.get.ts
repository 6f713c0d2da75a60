import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { findLookAlikes } from '#server/services/contributing/findLookAlikes'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.findLookAlikes, async ({ event, db, params, now }) =>
  findLookAlikes(db, await requireMarker(event, db, params.activityId, now)),
)
