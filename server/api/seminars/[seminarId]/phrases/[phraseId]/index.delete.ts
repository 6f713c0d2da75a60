import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { dropPhrase } from '#server/services/marking/phrases'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.removePhrase, async ({ event, db, params }) =>
  dropPhrase(db, await requireStaff(event, db, params.seminarId), params.phraseId),
)
