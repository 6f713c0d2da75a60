import { requireContribution } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setWithdrawn } from '#server/services/contributing/contributionState'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.withdrawContribution, async ({ event, db, params, body, now }) =>
  setWithdrawn(db, await requireContribution(event, db, params.contributionId, now), body.withdrawn, now),
)
