import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { previewLetter } from '#server/services/marking/letters'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.previewLetter, async ({ event, db, params, now }) =>
  previewLetter(db, await requireMarker(event, db, params.activityId, now), params.enrolmentId, now),
)
