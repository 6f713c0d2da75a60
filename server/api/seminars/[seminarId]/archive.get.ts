import { requireInstructor } from '#server/access/seminar'
import { longDownloadRoute } from '#server/http/fileRoute'
import { writeArchive } from '#server/services/keeping/writeArchive'
import * as keepingEndpoints from '#shared/keeping/endpoints'

export default longDownloadRoute(keepingEndpoints.downloadArchive, async ({ event, db, params, now }) => {
  const { seminar } = await requireInstructor(event, db, params.seminarId)
  return {
    name: `${seminar.code} ${now.toISOString().slice(0, 10)}.zip`,
    type: 'application/zip',
    stream: writeArchive(db, seminar, now),
  }
})
