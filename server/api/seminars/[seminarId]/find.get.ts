import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { find } from '#server/services/screens/find'
import * as planningEndpoints from '#shared/planning/endpoints'

export default route(planningEndpoints.findInSeminar, async ({ event, db, params, query, now }) =>
  find(db, await requireMember(event, db, params.seminarId), query.q, now),
)
