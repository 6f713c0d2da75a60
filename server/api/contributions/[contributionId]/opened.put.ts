import { requireContribution } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setOpened } from '#server/services/contributing/contributionState'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.openForReplies, async ({ event, db, params, body, now }) =>
  setOpened(db, await requireContribution(event, db, params.contributionId, now), body.opened, now),
)
