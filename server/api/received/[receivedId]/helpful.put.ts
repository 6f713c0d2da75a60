import { requireReceiver } from '#server/access/review'
import { route } from '#server/http/route'
import { rateHelpful } from '#server/services/contributing/review/receive'
import { HelpfulWrite, ReceivedParams } from '#shared/contributing/review'
import { Done } from '#shared/contributing/thread'

export default route(
  { params: ReceivedParams, body: HelpfulWrite, answer: Done },
  async ({ event, db, params, body, now }) =>
    rateHelpful(db, await requireReceiver(event, db, params.receivedId, now), body.helpful),
)
