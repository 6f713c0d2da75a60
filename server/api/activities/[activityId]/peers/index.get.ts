import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { peersView } from '#server/services/marking/peers/peersView'
import * as peersEndpoints from '#shared/marking/peersEndpoints'

export default route(peersEndpoints.readPeers, async ({ event, db, params, now }) =>
  peersView(db, await requireMarker(event, db, params.activityId, now), now),
)
