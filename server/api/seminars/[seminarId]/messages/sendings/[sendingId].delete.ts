import { requireStaffWriter } from '#server/access/seminar'
import { route } from '#server/http/route'
import { recallMessages } from '#server/services/messaging/writeTo'
import * as messagingEndpoints from '#shared/messaging/endpoints'

export default route(messagingEndpoints.takeMessagesBack, async ({ event, db, params }) =>
  recallMessages(db, await requireStaffWriter(event, db, params.seminarId), params.sendingId),
)
