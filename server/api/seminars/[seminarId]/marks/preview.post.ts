import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { previewMarks } from '#server/services/marking/results/importMarks'
import { MarksFile, MarksPreview } from '#shared/marking/gradebook'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, body: MarksFile, largest: 8_500_000, answer: MarksPreview },
  async ({ event, db, body, now }) =>
    previewMarks(db, await requireMarker(event, db, body.activityId, now), body.base64),
)
