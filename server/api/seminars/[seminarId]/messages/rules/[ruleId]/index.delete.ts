import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { removeRule } from '#server/services/messaging/rules'
import * as messagingEndpoints from '#shared/messaging/endpoints'

export default route(messagingEndpoints.deleteRule, async ({ event, db, params }) =>
  removeRule(db, await requireManager(event, db, params.seminarId), params.ruleId),
)
