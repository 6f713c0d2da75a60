import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { keepAttachment } from '#server/services/contributing/keepAttachment'
import * as filesEndpoints from '#shared/files/endpoints'

export default route(filesEndpoints.addActivityFile, async ({ event, db, params, body, begun, now }) =>
  keepAttachment(db, await requireContributor(event, db, params.activityId, now), body, begun, now),
)
