import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readReading } from '#server/services/contributing/reading/readReading'
import * as readingEndpoints from '#shared/contributing/readingEndpoints'

export default route(readingEndpoints.readReading, async ({ event, db, params, now }) =>
  readReading(db, await requireActivity(event, db, params.activityId, now)),
)
