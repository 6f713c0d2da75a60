import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { makeRubric } from '#server/services/rubrics/rubrics'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.makeRubric, async ({ event, db, params, body, now }) =>
  makeRubric(db, await requireManager(event, db, params.seminarId), body.key, body.rubric, now),
)
