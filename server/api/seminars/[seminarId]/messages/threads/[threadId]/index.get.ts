import { requireCorrespondent } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readMessages } from '#server/services/messaging/messageThreads'
import * as messagingEndpoints from '#shared/messaging/endpoints'

export default route(messagingEndpoints.readMessageThread, async ({ event, db, params, now }) =>
  readMessages(db, await requireCorrespondent(event, db, params.seminarId), params.threadId, now),
)
