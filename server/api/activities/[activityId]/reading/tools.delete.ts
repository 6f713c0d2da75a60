import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { dropToolsToken } from '#server/kinds/reading/toolsToken'
import * as readingEndpoints from '#shared/kinds/reading/endpoints'

export default route(readingEndpoints.closeAnnotationAddress, async ({ event, db, params, now }) =>
  dropToolsToken(db, await requireActivity(event, db, params.activityId, now)),
)
