import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { addText } from '#server/kinds/reading/library'
import * as readingEndpoints from '#shared/kinds/reading/endpoints'

export default route(readingEndpoints.addText, async ({ event, db, params, body, now }) =>
  addText(db, await requireManager(event, db, params.seminarId), body, now),
)
