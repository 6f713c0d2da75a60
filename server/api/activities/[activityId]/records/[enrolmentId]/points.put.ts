import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setPoints } from '#server/services/marking/gradebook/editGrade'
import * as gradebookEndpoints from '#shared/marking/gradebookEndpoints'

export default route(gradebookEndpoints.setPoints, async ({ event, db, params, body, now }) =>
  setPoints(db, await requireMarker(event, db, params.activityId, now), params.enrolmentId, body, now),
)
