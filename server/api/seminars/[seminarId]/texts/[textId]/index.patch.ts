import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { changeText } from '#server/kinds/reading/library'
import * as readingEndpoints from '#shared/kinds/reading/endpoints'

export default route(readingEndpoints.changeText, async ({ event, db, params, body, now }) =>
  changeText(db, await requireManager(event, db, params.seminarId), params.textId, body, now),
)
