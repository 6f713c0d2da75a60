import { requireReceiver } from '#server/access/review'
import { route } from '#server/http/route'
import { answerReview } from '#server/services/contributing/review/receive'
import { AnswerWrite, ReceivedParams } from '#shared/contributing/review'
import { Done } from '#shared/contributing/thread'

export default route(
  { params: ReceivedParams, body: AnswerWrite, answer: Done },
  async ({ event, db, params, body, now }) =>
    answerReview(db, await requireReceiver(event, db, params.receivedId, now), body),
)
