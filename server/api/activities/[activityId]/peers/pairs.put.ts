import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setPairs } from '#server/kinds/review/deal'
import * as peersEndpoints from '#shared/marking/peersEndpoints'

export default route(peersEndpoints.setReviewPairs, async ({ event, db, params, body, now }) =>
  setPairs(db, await requireMarker(event, db, params.activityId, now), body, now),
)
