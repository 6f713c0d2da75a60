import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { ownGrades } from '#server/services/marking/gradebook/gradebook'
import * as gradebookEndpoints from '#shared/marking/gradebookEndpoints'

export default route(gradebookEndpoints.readOwnGrades, async ({ event, db, params, now }) =>
  ownGrades(db, await requireMember(event, db, params.seminarId), now),
)
