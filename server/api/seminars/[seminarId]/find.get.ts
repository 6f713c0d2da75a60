import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { find } from '#server/services/planning/find'
import { FindQuery, Found } from '#shared/planning/find'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, query: FindQuery, answer: Found },
  async ({ event, db, params, query, now }) =>
    find(db, await requireMember(event, db, params.seminarId), query.q, now),
)
