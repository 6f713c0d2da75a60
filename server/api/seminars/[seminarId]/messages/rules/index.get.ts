import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { listRules } from '#server/services/messaging/rules'
import { RuleList } from '#shared/messaging/messages'
import { SeminarParams } from '#shared/people/seminar'

export default route({ params: SeminarParams, answer: RuleList }, async ({ event, db, params, now }) =>
  listRules(db, await requireStaff(event, db, params.seminarId), now),
)
