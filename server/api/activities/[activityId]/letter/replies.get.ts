import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { letterTalk } from '#server/services/marking/letterTalk'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.readOwnLetterReplies, async ({ event, db, params, now }) => {
  const actor = await requireActivity(event, db, params.activityId, now)
  return letterTalk(db, actor, actor.enrolment.id)
})
