import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { namesIn } from '#server/kinds/review/names'
import * as reviewEndpoints from '#shared/kinds/review/endpoints'

export default route(reviewEndpoints.findNamesInWork, async ({ event, db, params, body, now }) =>
  namesIn(db, await requireContributor(event, db, params.activityId, now), body),
)
