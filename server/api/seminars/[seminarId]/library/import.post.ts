import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { importToLibrary } from '#server/services/rubrics/exchangeRubrics'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.importRubric, async ({ event, db, params, body, now }) =>
  importToLibrary(db, await requireManager(event, db, params.seminarId), body, now),
)
