import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { findInText } from '#server/kinds/reading/readReading'
import * as readingEndpoints from '#shared/kinds/reading/endpoints'

export default route(readingEndpoints.findInText, async ({ event, db, params, query, now }) =>
  findInText(db, await requireActivity(event, db, params.activityId, now), query.q),
)
