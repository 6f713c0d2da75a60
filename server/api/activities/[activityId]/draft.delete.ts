import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { discardDraft } from '#server/services/contributing/writing/draft'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.discardDraft, async ({ event, db, params, body, now }) =>
  discardDraft(db, await requireContributor(event, db, params.activityId, now), body),
)
