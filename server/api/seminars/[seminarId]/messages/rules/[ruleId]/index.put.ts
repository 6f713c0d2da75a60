import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { changeRule } from '#server/services/messaging/rules'
import * as messagingEndpoints from '#shared/messaging/endpoints'

export default route(messagingEndpoints.saveRule, async ({ event, db, params, body }) =>
  changeRule(db, await requireManager(event, db, params.seminarId), params.ruleId, body),
)
