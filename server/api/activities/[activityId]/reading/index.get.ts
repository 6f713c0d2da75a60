import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readReading } from '#server/kinds/reading/readReading'
import * as readingEndpoints from '#shared/kinds/reading/endpoints'

export default route(readingEndpoints.readReading, async ({ event, db, params, now }) =>
  readReading(db, await requireActivity(event, db, params.activityId, now)),
)
