import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { switchRule } from '#server/services/messaging/rules'
import { RuleMade, RuleParams, RuleSwitch } from '#shared/messaging/messages'

export default route(
  { params: RuleParams, body: RuleSwitch, answer: RuleMade },
  async ({ event, db, params, body, now }) =>
    switchRule(db, await requireManager(event, db, params.seminarId), params.ruleId, body, now),
)
