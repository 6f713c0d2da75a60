import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { saveDraft } from '#server/services/contributing/writing/draft'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.saveDraft, async ({ event, db, params, body, now }) =>
  saveDraft(db, await requireContributor(event, db, params.activityId, now), body, now),
)
