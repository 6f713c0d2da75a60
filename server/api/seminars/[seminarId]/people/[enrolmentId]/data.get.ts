import { requireInstructor } from '#server/access/seminar'
import { streamRoute } from '#server/http/fileRoute'
import { ownData } from '#server/services/keeping/ownData'
import { EnrolmentParams } from '#shared/people/people'

export default streamRoute({ params: EnrolmentParams }, async ({ event, db, params, now }) =>
  ({ type: 'application/zip', ...await ownData(db, await requireInstructor(event, db, params.seminarId), params.enrolmentId, false, now) }))
