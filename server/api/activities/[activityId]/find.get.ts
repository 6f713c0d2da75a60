import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { findInTalk } from '#server/services/contributing/shapedThread'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.findInThread, async ({ event, db, params, query, now }) =>
  findInTalk(db, await requireActivity(event, db, params.activityId, now), query.q, now),
)
