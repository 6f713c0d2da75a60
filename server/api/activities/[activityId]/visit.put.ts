import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { recordVisit } from '#server/services/contributing/writing/draft'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.recordVisit, async ({ event, db, params, body, now }) =>
  recordVisit(db, await requireActivity(event, db, params.activityId, now), body.seq, now),
)
