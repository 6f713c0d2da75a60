import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { dropFeed } from '#server/services/contributing/feed'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.closeFeed, async ({ event, db, params, now }) =>
  dropFeed(db, await requireActivity(event, db, params.activityId, now)),
)
