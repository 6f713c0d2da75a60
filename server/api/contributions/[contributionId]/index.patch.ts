import { requireContribution } from '#server/access/seminar'
import { route } from '#server/http/route'
import { editContribution } from '#server/services/contributing/writing/editContribution'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.editContribution, async ({ event, db, params, body, now }) =>
  editContribution(db, await requireContribution(event, db, params.contributionId, now), body, now),
)
