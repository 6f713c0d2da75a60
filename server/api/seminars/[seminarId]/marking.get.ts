import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { markingQueue } from '#server/services/marking/desk'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.readMarkingQueue, async ({ event, db, params, now }) =>
  markingQueue(db, await requireStaff(event, db, params.seminarId), now),
)
