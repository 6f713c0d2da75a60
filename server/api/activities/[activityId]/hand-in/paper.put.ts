import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { tickPaper } from '#server/kinds/review/handIn'
import * as reviewEndpoints from '#shared/kinds/review/endpoints'

export default route(reviewEndpoints.handInPaper, async ({ event, db, params, body, now }) =>
  tickPaper(db, await requireMarker(event, db, params.activityId, now), body, now),
)
