import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { keepPhrase } from '#server/services/marking/phrases'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.savePhrase, async ({ event, db, params, body, now }) =>
  keepPhrase(db, await requireStaff(event, db, params.seminarId), body, now),
)
