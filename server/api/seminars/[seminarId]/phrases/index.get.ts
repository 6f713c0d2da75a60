import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { ownPhrases } from '#server/services/marking/phrases'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.readPhrases, async ({ event, db, params }) =>
  ownPhrases(db, await requireStaff(event, db, params.seminarId)),
)
