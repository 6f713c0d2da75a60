import { requireContribution } from '#server/access/seminar'
import { route } from '#server/http/route'
import { ownText } from '#server/services/contributing/writing/editContribution'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.readOwnText, async ({ event, db, params, now }) =>
  ownText(await requireContribution(event, db, params.contributionId, now)),
)
