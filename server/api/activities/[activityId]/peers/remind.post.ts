import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { remind } from '#server/services/marking/peers/moderate'
import * as peersEndpoints from '#shared/marking/peersEndpoints'

export default route(peersEndpoints.remindReviewers, async ({ event, db, params, body, now }) =>
  remind(db, await requireMarker(event, db, params.activityId, now), body, now),
)
