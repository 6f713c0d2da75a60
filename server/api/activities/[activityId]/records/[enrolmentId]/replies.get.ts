import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { letterTalk } from '#server/services/marking/letterTalk'
import { RecordParams } from '#shared/marking/desk'
import { LetterTalk } from '#shared/marking/letter'

export default route({ params: RecordParams, answer: LetterTalk }, async ({ event, db, params, now }) =>
  letterTalk(db, await requireMarker(event, db, params.activityId, now), params.enrolmentId),
)
