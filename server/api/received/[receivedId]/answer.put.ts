import { requireReceiver } from '#server/services/contributing/review/reviewAccess'
import { route } from '#server/http/route'
import { answerReview } from '#server/services/contributing/review/receive'
import * as reviewEndpoints from '#shared/contributing/reviewEndpoints'

export default route(reviewEndpoints.answerReview, async ({ event, db, params, body, now }) =>
  answerReview(db, await requireReceiver(event, db, params.receivedId, now), body),
)
