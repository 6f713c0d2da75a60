import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { letterTalk } from '#server/services/marking/letterTalk'
import { ActivityParams } from '#shared/contributing/activity'
import { LetterTalk } from '#shared/marking/letter'

export default route({ params: ActivityParams, answer: LetterTalk }, async ({ event, db, params, now }) => {
  const actor = await requireActivity(event, db, params.activityId, now)
  return letterTalk(db, actor, actor.enrolment.id)
})
