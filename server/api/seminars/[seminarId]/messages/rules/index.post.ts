import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { makeRule } from '#server/services/messaging/rules'
import * as messagingEndpoints from '#shared/messaging/endpoints'

export default route(messagingEndpoints.makeRule, async ({ event, db, params, body }) =>
  makeRule(db, await requireManager(event, db, params.seminarId), body),
)
