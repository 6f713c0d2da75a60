import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { changeRule } from '#server/services/messaging/rules'
import { RuleMade, RuleParams, RuleWrite } from '#shared/messaging/messages'

export default route(
  { params: RuleParams, body: RuleWrite, answer: RuleMade },
  async ({ event, db, params, body }) =>
    changeRule(db, await requireManager(event, db, params.seminarId), params.ruleId, body),
)
