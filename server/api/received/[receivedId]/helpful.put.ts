import { requireReceiver } from '#server/kinds/review/reviewAccess'
import { route } from '#server/http/route'
import { rateHelpful } from '#server/kinds/review/receive'
import * as reviewEndpoints from '#shared/kinds/review/endpoints'

export default route(reviewEndpoints.rateReview, async ({ event, db, params, body, now }) =>
  rateHelpful(db, await requireReceiver(event, db, params.receivedId, now), body.helpful),
)
