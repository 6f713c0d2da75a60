import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { replyToLetter } from '#server/services/marking/letterTalk'
import { RecordParams } from '#shared/marking/desk'
import { LetterReplyWrite, LetterTalk } from '#shared/marking/letter'

export default route(
  { params: RecordParams, body: LetterReplyWrite, answer: LetterTalk },
  async ({ event, db, params, body, now }) =>
    replyToLetter(db, await requireMarker(event, db, params.activityId, now), params.enrolmentId, body, now),
)
