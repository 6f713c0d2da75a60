import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { toolsAddress } from '#server/kinds/reading/toolsToken'
import * as readingEndpoints from '#shared/kinds/reading/endpoints'

export default route(readingEndpoints.readAnnotationAddress, async ({ event, db, params, now }) =>
  toolsAddress(db, await requireActivity(event, db, params.activityId, now)),
)
