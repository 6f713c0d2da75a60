import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { requireLetter } from '#server/services/marking/letters'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.readLetter, async ({ event, db, params, now }) =>
  requireLetter(db, await requireActivity(event, db, params.activityId, now), params.activityId),
)
