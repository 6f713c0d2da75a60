import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { myWeek } from '#server/services/screens/myWeek'
import * as planningEndpoints from '#shared/planning/endpoints'

export default route(planningEndpoints.readOwnWeek, async ({ event, db, params, now }) =>
  myWeek(db, await requireMember(event, db, params.seminarId), now),
)
