import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { replyToLetter } from '#server/services/marking/letterTalk'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.replyToLetter, async ({ event, db, params, body, now }) =>
  replyToLetter(db, await requireMarker(event, db, params.activityId, now), params.enrolmentId, body, now),
)
