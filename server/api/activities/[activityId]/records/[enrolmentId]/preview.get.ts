import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { previewLetter } from '#server/services/marking/letters'
import { RecordParams } from '#shared/marking/desk'
import { LetterView } from '#shared/marking/letter'

export default route({ params: RecordParams, answer: LetterView }, async ({ event, db, params, now }) =>
  previewLetter(db, await requireMarker(event, db, params.activityId, now), params.enrolmentId, now),
)
