import { requireStaffWriter } from '#server/access/seminar'
import { route } from '#server/http/route'
import { sendMessages } from '#server/services/messaging/writeTo'
import { SendMessages, Sent } from '#shared/messaging/messages'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, body: SendMessages, answer: Sent, largest: 8_000_000 },
  async ({ event, db, params, body, now }) =>
    sendMessages(db, await requireStaffWriter(event, db, params.seminarId), body, now),
)
