import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { addTextVersion } from '#server/kinds/reading/library'
import * as readingEndpoints from '#shared/kinds/reading/endpoints'

export default route(readingEndpoints.addTextVersion, async ({ event, db, params, body, now }) =>
  addTextVersion(db, await requireManager(event, db, params.seminarId), params.textId, body, now),
)
