import { requireContribution } from '#server/access/seminar'
import { route } from '#server/http/route'
import { requireMarkerOf } from '#server/services/contributing/requireStaffAbout'
import { markContribution } from '#server/services/marking/markContribution'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.markContribution, async ({ event, db, params, body, now }) => {
  const actor = await requireContribution(event, db, params.contributionId, now)
  return markContribution(db, await requireMarkerOf(db, actor, now), body, now)
})
