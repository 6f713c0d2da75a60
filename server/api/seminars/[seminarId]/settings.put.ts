import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { writeSettings } from '#server/services/people/seminars'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.saveSettings, async ({ event, db, params, body, now }) =>
  writeSettings(db, await requireManager(event, db, params.seminarId), body, now),
)
