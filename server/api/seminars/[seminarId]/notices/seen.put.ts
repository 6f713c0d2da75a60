import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { markNoticesSeen } from '#server/services/messaging/notices'
import * as messagingEndpoints from '#shared/messaging/endpoints'

export default route(messagingEndpoints.recordNoticesSeen, async ({ event, db, params, now }) => {
  await markNoticesSeen(db, await requireMember(event, db, params.seminarId), now)
  return { done: true }
})
