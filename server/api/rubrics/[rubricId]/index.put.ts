import { requireRubricOwner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { writeRubric } from '#server/services/rubrics/rubrics'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.saveRubric, async ({ event, db, params, body, now }) =>
  writeRubric(db, await requireRubricOwner(event, db, params.rubricId, true), params.rubricId, body, now),
)
