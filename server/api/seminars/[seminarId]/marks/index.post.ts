import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { importMarks } from '#server/services/marking/results/importMarks'
import { MarksImport, MarksImported } from '#shared/marking/gradebook'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, body: MarksImport, largest: 8_500_000, answer: MarksImported },
  async ({ event, db, body, now }) =>
    importMarks(db, await requireMarker(event, db, body.activityId, now), body, now),
)
