import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { removeRule } from '#server/services/messaging/rules'
import { RuleMade, RuleParams } from '#shared/messaging/messages'

export default route({ params: RuleParams, answer: RuleMade }, async ({ event, db, params }) =>
  removeRule(db, await requireManager(event, db, params.seminarId), params.ruleId),
)
