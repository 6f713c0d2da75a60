import { requireReceiver } from '#server/services/contributing/review/reviewAccess'
import { route } from '#server/http/route'
import { rateHelpful } from '#server/services/contributing/review/receive'
import * as reviewEndpoints from '#shared/contributing/reviewEndpoints'

export default route(reviewEndpoints.rateReview, async ({ event, db, params, body, now }) =>
  rateHelpful(db, await requireReceiver(event, db, params.receivedId, now), body.helpful),
)
