import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { makeToolsToken } from '#server/kinds/reading/toolsToken'
import * as readingEndpoints from '#shared/kinds/reading/endpoints'

export default route(readingEndpoints.makeAnnotationAddress, async ({ event, db, params, now }) =>
  makeToolsToken(db, await requireActivity(event, db, params.activityId, now)),
)
