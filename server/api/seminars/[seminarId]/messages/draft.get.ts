import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { draftFor } from '#server/services/messaging/writeTo'
import * as messagingEndpoints from '#shared/messaging/endpoints'

export default route(messagingEndpoints.readMessageDraft, async ({ event, db, params, query, now }) =>
  draftFor(db, await requireStaff(event, db, params.seminarId), query.to, query.activity, now),
)
