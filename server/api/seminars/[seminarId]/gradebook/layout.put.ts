import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { layOutGradebook } from '#server/services/marking/gradebook/gradebook'
import * as gradebookEndpoints from '#shared/marking/gradebookEndpoints'

export default route(gradebookEndpoints.arrangeGradebook, async ({ event, db, params, body }) =>
  layOutGradebook(db, await requireStaff(event, db, params.seminarId), body),
)
