import { requirePerson } from '#server/access/session'
import { route } from '#server/http/route'
import { requireMailroom } from '#server/services/people/session'
import { mailroomMessagesNow } from '#server/mail/mailroom'
import * as messagingEndpoints from '#shared/messaging/endpoints'

export default route(messagingEndpoints.readMailroom, async ({ event, db }) => {
  requireMailroom(await requirePerson(event))
  return mailroomMessagesNow(db)
})
