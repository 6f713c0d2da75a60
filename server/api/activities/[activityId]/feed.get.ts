import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { ownFeed } from '#server/services/contributing/feed'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.readFeed, async ({ event, db, params, now }) =>
  ownFeed(db, await requireActivity(event, db, params.activityId, now)),
)
