import { requirePerson } from '#server/access/session'
import { route } from '#server/http/route'
import { requireMailroom } from '#server/services/people/session'
import { mailroomMessagesNow } from '#server/services/messaging/mailroom'
import { Mailroom } from '#shared/messaging/notices'

export default route({ answer: Mailroom }, async ({ event, db }) => {
  requireMailroom(await requirePerson(event, db))
  return mailroomMessagesNow(db)
})
