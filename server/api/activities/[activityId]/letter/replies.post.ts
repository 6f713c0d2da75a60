import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { replyToLetter } from '#server/services/marking/letterTalk'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.replyToOwnLetter, async ({ event, db, params, body, now }) => {
  const actor = await requireContributor(event, db, params.activityId, now)
  return replyToLetter(db, actor, actor.enrolment.id, body, now)
})
