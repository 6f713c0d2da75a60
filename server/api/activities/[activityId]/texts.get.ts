import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readTexts } from '#server/services/contributing/shapedThread'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.readTexts, async ({ event, db, params, query, now }) =>
  readTexts(db, await requireActivity(event, db, params.activityId, now), query.ids, now),
)
