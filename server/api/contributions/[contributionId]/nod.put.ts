import { requireContribution } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setNod } from '#server/services/contributing/contributionState'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.nodToContribution, async ({ event, db, params, body, now }) =>
  setNod(db, await requireContribution(event, db, params.contributionId, now), body, now),
)
