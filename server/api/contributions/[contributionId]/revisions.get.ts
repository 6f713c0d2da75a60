import { requireContribution } from '#server/access/seminar'
import { route } from '#server/http/route'
import { requireMarkerOf } from '#server/services/contributing/requireStaffAbout'
import { revisionsOf } from '#server/services/contributing/writing/editContribution'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.readRevisions, async ({ event, db, params, now }) => {
  const actor = await requireContribution(event, db, params.contributionId, now)
  return revisionsOf(db, (await requireMarkerOf(db, actor, now)).contribution)
})
