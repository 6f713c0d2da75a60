import { requireInstructor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readOutcomes } from '#server/services/marking/outcomes'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.readOutcomes, async ({ event, db, params, query }) =>
  readOutcomes(db, await requireInstructor(event, db, params.seminarId), query),
)
