import { requireStaffWriter } from '#server/access/seminar'
import { route } from '#server/http/route'
import { takeBack } from '#server/services/messaging/writeTo'
import { SendingParams, TakenBack } from '#shared/messaging/messages'

export default route({ params: SendingParams, answer: TakenBack }, async ({ event, db, params }) =>
  takeBack(db, await requireStaffWriter(event, db, params.seminarId), params.sendingId),
)
