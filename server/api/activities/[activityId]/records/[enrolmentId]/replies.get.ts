import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { letterTalk } from '#server/services/marking/letterTalk'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.readLetterReplies, async ({ event, db, params, now }) =>
  letterTalk(db, await requireMarker(event, db, params.activityId, now), params.enrolmentId),
)
