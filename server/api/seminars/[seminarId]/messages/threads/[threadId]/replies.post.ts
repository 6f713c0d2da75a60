import { requireCorrespondent } from '#server/access/seminar'
import { route } from '#server/http/route'
import { answerMessage } from '#server/services/messaging/messageThreads'
import * as messagingEndpoints from '#shared/messaging/endpoints'

export default route(messagingEndpoints.replyToMessage, async ({ event, db, params, body, now }) =>
  answerMessage(db, await requireCorrespondent(event, db, params.seminarId), params.threadId, body, now),
)
