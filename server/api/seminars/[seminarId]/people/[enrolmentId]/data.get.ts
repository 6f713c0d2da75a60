import { requireInstructor } from '#server/access/seminar'
import { longDownloadRoute } from '#server/http/fileRoute'
import { ownData } from '#server/services/keeping/ownData'
import * as keepingEndpoints from '#shared/keeping/endpoints'

export default longDownloadRoute(
  keepingEndpoints.downloadDataOfPerson,
  async ({ event, db, params, now }) => ({
    type: 'application/zip',
    ...(await ownData(
      db,
      await requireInstructor(event, db, params.seminarId),
      params.enrolmentId,
      false,
      now,
    )),
  }),
)
