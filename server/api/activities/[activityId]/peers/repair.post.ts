import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { planRepair } from '#server/kinds/review/deal'
import * as peersEndpoints from '#shared/marking/peersEndpoints'

export default route(peersEndpoints.repairReviews, async ({ event, db, params, body, now }) =>
  planRepair(db, await requireMarker(event, db, params.activityId, now), body),
)
