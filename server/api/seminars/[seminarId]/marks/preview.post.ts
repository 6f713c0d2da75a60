import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { previewMarks } from '#server/services/marking/results/importMarks'
import * as gradebookEndpoints from '#shared/marking/gradebookEndpoints'

export default route(gradebookEndpoints.previewMarks, async ({ event, db, body, now }) =>
  previewMarks(db, await requireMarker(event, db, body.activityId, now), body.base64),
)
