import { requireStaffWriter } from '#server/access/seminar'
import { route } from '#server/http/route'
import { sendMessages } from '#server/services/messaging/writeTo'
import * as messagingEndpoints from '#shared/messaging/endpoints'

export default route(messagingEndpoints.sendMessages, async ({ event, db, params, body, now }) =>
  sendMessages(db, await requireStaffWriter(event, db, params.seminarId), body, now),
)
