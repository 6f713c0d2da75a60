import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setApart } from '#server/kinds/review/deal'
import * as peersEndpoints from '#shared/marking/peersEndpoints'

export default route(peersEndpoints.keepReviewersApart, async ({ event, db, params, body, now }) =>
  setApart(db, await requireMarker(event, db, params.activityId, now), body.pairs),
)
