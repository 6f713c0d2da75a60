import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { termPlan } from '#server/services/planning/termPlan'
import { SeminarParams } from '#shared/people/seminar'
import { TermPlan } from '#shared/planning/plan'

export default route({ params: SeminarParams, answer: TermPlan }, async ({ event, db, params, now }) =>
  termPlan(db, await requireMember(event, db, params.seminarId), now),
)
