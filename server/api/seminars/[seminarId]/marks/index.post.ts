import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { importMarks } from '#server/services/marking/results/importMarks'
import * as gradebookEndpoints from '#shared/marking/gradebookEndpoints'

export default route(gradebookEndpoints.importMarks, async ({ event, db, body, now }) =>
  importMarks(db, await requireMarker(event, db, body.activityId, now), body, now),
)
