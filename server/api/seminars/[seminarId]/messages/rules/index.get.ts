import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { listRules } from '#server/services/messaging/rules'
import * as messagingEndpoints from '#shared/messaging/endpoints'

export default route(messagingEndpoints.readRules, async ({ event, db, params, now }) =>
  listRules(db, await requireStaff(event, db, params.seminarId), now),
)
