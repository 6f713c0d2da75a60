import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { release } from '#server/services/marking/peers/moderate'
import * as peersEndpoints from '#shared/marking/peersEndpoints'

export default route(peersEndpoints.releaseReviews, async ({ event, db, params, body, now }) =>
  release(db, await requireMarker(event, db, params.activityId, now), body, now),
)
