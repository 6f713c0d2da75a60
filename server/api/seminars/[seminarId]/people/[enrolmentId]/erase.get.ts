import { requireInstructor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { previewErasure } from '#server/services/keeping/erase'
import * as keepingEndpoints from '#shared/keeping/endpoints'

export default route(keepingEndpoints.previewErasure, async ({ event, db, params }) =>
  previewErasure(db, await requireInstructor(event, db, params.seminarId), params.enrolmentId),
)
