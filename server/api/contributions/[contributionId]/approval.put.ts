import { requireContribution } from '#server/access/seminar'
import { route } from '#server/http/route'
import { approve } from '#server/services/contributing/approve'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.approveContribution, async ({ event, db, params, body, now }) =>
  approve(db, await requireContribution(event, db, params.contributionId, now), body, now),
)
