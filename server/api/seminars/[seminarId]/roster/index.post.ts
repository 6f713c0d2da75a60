import { requireManager } from '#server/access/seminar'
import { progressRoute } from '#server/http/route'
import { importRoster } from '#server/services/people/roster'
import * as peopleEndpoints from '#shared/people/endpoints'

export default progressRoute(
  peopleEndpoints.importRoster,
  async ({ event, db, params, body, now, progress }) =>
    importRoster(db, await requireManager(event, db, params.seminarId), body, now, progress),
)
