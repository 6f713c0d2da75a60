import { requireCorrespondent } from '#server/access/seminar'
import { route } from '#server/http/route'
import { listThreads } from '#server/services/messaging/messageThreads'
import * as messagingEndpoints from '#shared/messaging/endpoints'

export default route(messagingEndpoints.readMessageThreads, async ({ event, db, params, query }) =>
  listThreads(db, await requireCorrespondent(event, db, params.seminarId), query),
)
