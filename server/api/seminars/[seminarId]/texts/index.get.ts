import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { listTexts } from '#server/services/contributing/reading/library'
import * as readingEndpoints from '#shared/contributing/readingEndpoints'

export default route(readingEndpoints.readLibraryTexts, async ({ event, db, params }) =>
  listTexts(db, await requireStaff(event, db, params.seminarId)),
)
