import { requireCorrespondent } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readMessages } from '#server/services/messaging/messageThreads'
import { MessageThread, ThreadParams } from '#shared/messaging/messages'

export default route({ params: ThreadParams, answer: MessageThread }, async ({ event, db, params, now }) =>
  readMessages(db, await requireCorrespondent(event, db, params.seminarId), params.threadId, now),
)
