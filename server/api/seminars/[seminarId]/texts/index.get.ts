import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { listTexts } from '#server/kinds/reading/library'
import * as readingEndpoints from '#shared/kinds/reading/endpoints'

export default route(readingEndpoints.readLibraryTexts, async ({ event, db, params }) =>
  listTexts(db, await requireStaff(event, db, params.seminarId)),
)
