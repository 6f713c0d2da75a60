import { requireContribution } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setOnTop } from '#server/services/contributing/contributionState'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.keepOnTop, async ({ event, db, params, body, now }) =>
  setOnTop(db, await requireContribution(event, db, params.contributionId, now), body.onTop, now),
)
