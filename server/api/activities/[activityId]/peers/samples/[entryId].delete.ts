import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { takeSampleAway } from '#server/services/marking/peers/moderate'
import * as peersEndpoints from '#shared/marking/peersEndpoints'

export default route(peersEndpoints.removeSample, async ({ event, db, params, now }) =>
  takeSampleAway(db, await requireMarker(event, db, params.activityId, now), params.entryId, now),
)
