import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { gradebook } from '#server/services/marking/gradebook/gradebook'
import * as gradebookEndpoints from '#shared/marking/gradebookEndpoints'

export default route(gradebookEndpoints.readGradebook, async ({ event, db, params, now }) =>
  gradebook(db, await requireStaff(event, db, params.seminarId), now),
)
