import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { toolsAddress } from '#server/services/contributing/reading/toolsToken'
import * as readingEndpoints from '#shared/contributing/readingEndpoints'

export default route(readingEndpoints.readAnnotationAddress, async ({ event, db, params, now }) =>
  toolsAddress(db, await requireActivity(event, db, params.activityId, now)),
)
