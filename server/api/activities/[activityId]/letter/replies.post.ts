import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { replyToLetter } from '#server/services/marking/letterTalk'
import { ActivityParams } from '#shared/contributing/activity'
import { LetterReplyWrite, LetterTalk } from '#shared/marking/letter'

export default route(
  { params: ActivityParams, body: LetterReplyWrite, answer: LetterTalk },
  async ({ event, db, params, body, now }) => {
    const actor = await requireContributor(event, db, params.activityId, now)
    return replyToLetter(db, actor, actor.enrolment.id, body, now)
  },
)
