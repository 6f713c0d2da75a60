import { requireContribution } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setThreadClosed } from '#server/services/contributing/closeToWords'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.closeThreadToWords, async ({ event, db, params, body, now }) =>
  setThreadClosed(db, await requireContribution(event, db, params.contributionId, now), body.closed, now),
)
