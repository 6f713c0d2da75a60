import { requireInstructor } from '#server/access/seminar'
import { longDownloadRoute } from '#server/http/fileRoute'
import { ownData } from '#server/services/keeping/ownData'
import { EnrolmentParams } from '#shared/people/people'

export default longDownloadRoute({ params: EnrolmentParams }, async ({ event, db, params, now }) => ({
  type: 'application/zip',
  ...(await ownData(
    db,
    await requireInstructor(event, db, params.seminarId),
    params.enrolmentId,
    false,
    now,
  )),
}))
