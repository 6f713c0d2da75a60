import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { addOutcome } from '#server/services/rubrics/writeOutcomes'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.addOutcome, async ({ event, db, params, body, now }) =>
  addOutcome(db, await requireManager(event, db, params.seminarId), body, now),
)
