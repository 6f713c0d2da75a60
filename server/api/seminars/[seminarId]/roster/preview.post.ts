import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { previewRoster } from '#server/services/people/roster'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.previewRoster, async ({ event, db, params, body }) =>
  previewRoster(db, await requireManager(event, db, params.seminarId), body),
)
