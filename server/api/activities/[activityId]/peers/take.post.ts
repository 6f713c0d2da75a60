import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { takeConsensus } from '#server/services/marking/peers/takeConsensus'
import * as peersEndpoints from '#shared/marking/peersEndpoints'

export default route(peersEndpoints.proposePeerMarks, async ({ event, db, params, body, now }) =>
  takeConsensus(db, await requireMarker(event, db, params.activityId, now), body, now),
)
