import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { deskView } from '#server/services/marking/desk'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.readDesk, async ({ event, db, params, now }) =>
  deskView(db, await requireMarker(event, db, params.activityId, now), now),
)
