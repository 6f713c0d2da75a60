import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { libraryView } from '#server/services/rubrics/rubricLibrary'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.readLibrary, async ({ event, db, params }) =>
  libraryView(db, await requireStaff(event, db, params.seminarId)),
)
