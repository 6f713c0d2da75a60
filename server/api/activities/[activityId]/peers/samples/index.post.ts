import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { putSample } from '#server/services/marking/peers/moderate'
import * as peersEndpoints from '#shared/marking/peersEndpoints'

export default route(peersEndpoints.addSample, async ({ event, db, params, body, now }) =>
  putSample(db, await requireMarker(event, db, params.activityId, now), body, now),
)
