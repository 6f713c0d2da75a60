import { requireContributionMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { markContribution } from '#server/services/marking/markContribution'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.markContribution, async ({ event, db, params, body, now }) =>
  markContribution(db, await requireContributionMarker(event, db, params.contributionId, now), body, now),
)
