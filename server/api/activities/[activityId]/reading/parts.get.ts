import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readParts } from '#server/kinds/reading/readReading'
import * as readingEndpoints from '#shared/kinds/reading/endpoints'

export default route(readingEndpoints.readTextParts, async ({ event, db, params, query, now }) =>
  readParts(db, await requireActivity(event, db, params.activityId, now), query.from, query.to),
)
