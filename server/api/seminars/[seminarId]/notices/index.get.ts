import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { ownNotices } from '#server/services/messaging/notices'
import * as messagingEndpoints from '#shared/messaging/endpoints'

export default route(messagingEndpoints.readNotices, async ({ event, db, params }) =>
  ownNotices(db, await requireMember(event, db, params.seminarId)),
)
