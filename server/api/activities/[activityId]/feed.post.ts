import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { makeFeed } from '#server/services/contributing/feed'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.makeFeed, async ({ event, db, params, now }) =>
  makeFeed(db, await requireActivity(event, db, params.activityId, now)),
)
