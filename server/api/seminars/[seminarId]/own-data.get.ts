import { nothingHere, requireMember } from '#server/access/seminar'
import { longDownloadRoute } from '#server/http/fileRoute'
import { ownData } from '#server/services/keeping/ownData'
import * as keepingEndpoints from '#shared/keeping/endpoints'

export default longDownloadRoute(keepingEndpoints.downloadOwnData, async ({ event, db, params, now }) => {
  const actor = await requireMember(event, db, params.seminarId)
  if (actor.enrolment.role !== 'student') throw nothingHere()
  return { type: 'application/zip', ...(await ownData(db, actor, actor.enrolment.id, true, now)) }
})
