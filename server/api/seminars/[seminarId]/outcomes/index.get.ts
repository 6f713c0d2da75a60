import { requireInstructor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readOutcomes } from '#server/services/marking/outcomes'
import { OutcomesQuery, OutcomesView } from '#shared/marking/outcomes'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, query: OutcomesQuery, answer: OutcomesView },
  async ({ event, db, params, query }) =>
    readOutcomes(db, await requireInstructor(event, db, params.seminarId), query),
)
