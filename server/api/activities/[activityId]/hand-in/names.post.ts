import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { namesIn } from '#server/services/contributing/review/names'
import * as reviewEndpoints from '#shared/contributing/reviewEndpoints'

export default route(reviewEndpoints.findNamesInWork, async ({ event, db, params, body, now }) =>
  namesIn(db, await requireContributor(event, db, params.activityId, now), body),
)
