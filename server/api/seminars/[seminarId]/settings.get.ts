import { requireInstructor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { settingsView } from '#server/services/people/seminars'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.readSettings, async ({ event, db, params }) =>
  settingsView(db, await requireInstructor(event, db, params.seminarId)),
)
