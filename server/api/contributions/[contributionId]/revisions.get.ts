import { requireContributionMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { revisionsOf } from '#server/services/contributing/writing/editContribution'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.readRevisions, async ({ event, db, params, now }) =>
  revisionsOf(db, (await requireContributionMarker(event, db, params.contributionId, now)).contribution),
)
