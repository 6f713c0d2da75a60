import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { dealOut } from '#server/kinds/review/deal'
import * as peersEndpoints from '#shared/marking/peersEndpoints'

export default route(peersEndpoints.dealReviewers, async ({ event, db, params, body, now }) =>
  dealOut(db, await requireMarker(event, db, params.activityId, now), body, now),
)
