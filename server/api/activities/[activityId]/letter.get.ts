import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { requireLetter } from '#server/services/marking/letters'
import { ActivityParams } from '#shared/contributing/activity'
import { LetterView } from '#shared/marking/letter'

export default route({ params: ActivityParams, answer: LetterView }, async ({ event, db, params, now }) =>
  requireLetter(db, await requireActivity(event, db, params.activityId, now), params.activityId),
)
