import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { markNoticesSeen } from '#server/services/messaging/notices'
import { Done } from '#shared/contributing/thread'
import { SeminarParams } from '#shared/people/seminar'

export default route({ params: SeminarParams, answer: Done }, async ({ event, db, params, now }) => {
  await markNoticesSeen(db, await requireMember(event, db, params.seminarId), now)
  return { done: true }
})
