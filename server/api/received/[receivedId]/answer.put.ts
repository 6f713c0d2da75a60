import { requireReceiver } from '#server/kinds/review/reviewAccess'
import { route } from '#server/http/route'
import { answerReview } from '#server/kinds/review/receive'
import * as reviewEndpoints from '#shared/kinds/review/endpoints'

export default route(reviewEndpoints.answerReview, async ({ event, db, params, body, now }) =>
  answerReview(db, await requireReceiver(event, db, params.receivedId, now), body, now),
)
