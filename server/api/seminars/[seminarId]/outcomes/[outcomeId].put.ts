import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { changeOutcome } from '#server/services/rubrics/writeOutcomes'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.changeOutcome, async ({ event, db, params, body, now }) =>
  changeOutcome(db, await requireManager(event, db, params.seminarId), params.outcomeId, body, now),
)
