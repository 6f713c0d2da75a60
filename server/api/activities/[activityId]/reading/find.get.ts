import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { findInText } from '#server/services/contributing/reading/readReading'
import * as readingEndpoints from '#shared/contributing/readingEndpoints'

export default route(readingEndpoints.findInText, async ({ event, db, params, query, now }) =>
  findInText(db, await requireActivity(event, db, params.activityId, now), query.q),
)
