import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { exportTalk } from '#server/services/contributing/exportTalk'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.exportThread, async ({ event, db, params, query, now }) =>
  exportTalk(db, await requireActivity(event, db, params.activityId, now), query.as, now),
)
