import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { switchRule } from '#server/services/messaging/rules'
import * as messagingEndpoints from '#shared/messaging/endpoints'

export default route(messagingEndpoints.switchRule, async ({ event, db, params, body, now }) =>
  switchRule(db, await requireManager(event, db, params.seminarId), params.ruleId, body, now),
)
