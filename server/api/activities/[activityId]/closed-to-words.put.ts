import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setActivityClosed } from '#server/services/contributing/closeToWords'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.closeActivityToWords, async ({ event, db, params, body, now }) =>
  setActivityClosed(db, await requireContributor(event, db, params.activityId, now), body.closed, now),
)
