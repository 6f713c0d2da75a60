import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { undeal } from '#server/kinds/review/deal'
import * as peersEndpoints from '#shared/marking/peersEndpoints'

export default route(peersEndpoints.undealReviewers, async ({ event, db, params, now }) =>
  undeal(db, await requireMarker(event, db, params.activityId, now), now),
)
