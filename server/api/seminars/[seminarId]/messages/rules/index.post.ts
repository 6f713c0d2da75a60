import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { makeRule } from '#server/services/messaging/rules'
import { RuleMade, RuleWrite } from '#shared/messaging/messages'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, body: RuleWrite, answer: RuleMade },
  async ({ event, db, params, body }) =>
    makeRule(db, await requireManager(event, db, params.seminarId), body),
)
