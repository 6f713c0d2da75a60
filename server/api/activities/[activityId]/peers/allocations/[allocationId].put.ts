import { requireModerator } from '#server/kinds/review/reviewAccess'
import { route } from '#server/http/route'
import { judgeReview } from '#server/services/marking/peers/moderate'
import * as peersEndpoints from '#shared/marking/peersEndpoints'

export default route(peersEndpoints.judgeReview, async ({ event, db, params, body, now }) =>
  judgeReview(db, await requireModerator(event, db, params.activityId, params.allocationId, now), body, now),
)
