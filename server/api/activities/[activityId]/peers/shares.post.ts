import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { shareMark } from '#server/services/marking/peers/shareMark'
import * as peersEndpoints from '#shared/marking/peersEndpoints'

export default route(peersEndpoints.proposeShares, async ({ event, db, params, body, now }) =>
  shareMark(db, await requireMarker(event, db, params.activityId, now), body, now),
)
