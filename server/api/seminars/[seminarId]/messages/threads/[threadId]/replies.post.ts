import { requireCorrespondent } from '#server/access/seminar'
import { route } from '#server/http/route'
import { answerMessage } from '#server/services/messaging/messageThreads'
import { MessageReply, MessageThread, ThreadParams } from '#shared/messaging/messages'

export default route(
  { params: ThreadParams, body: MessageReply, answer: MessageThread },
  async ({ event, db, params, body, now }) =>
    answerMessage(db, await requireCorrespondent(event, db, params.seminarId), params.threadId, body, now),
)
