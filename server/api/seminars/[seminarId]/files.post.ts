import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { keepFile } from '#server/services/files/files'
import * as filesEndpoints from '#shared/files/endpoints'

export default route(filesEndpoints.addSeminarFile, async ({ event, db, params, body }) =>
  keepFile(db, await requireStaff(event, db, params.seminarId), body),
)
