import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { undoTake } from '#server/services/marking/peers/undoTake'
import * as peersEndpoints from '#shared/marking/peersEndpoints'

export default route(peersEndpoints.undoPeerMarks, async ({ event, db, params, body, now }) =>
  undoTake(db, await requireMarker(event, db, params.activityId, now), body, now),
)
