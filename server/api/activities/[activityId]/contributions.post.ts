import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { postContribution } from '#server/services/contributing/writing/postContribution'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.postContribution, async ({ event, db, params, body, now }) =>
  postContribution(db, await requireContributor(event, db, params.activityId, now), body, now),
)
