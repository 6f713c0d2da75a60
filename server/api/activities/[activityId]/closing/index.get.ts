import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readClosing } from '#server/services/closing/closingRounds'
import { ClosingView } from '#shared/closing/closing'
import { ActivityParams } from '#shared/contributing/activity'

export default route({ params: ActivityParams, answer: ClosingView }, async ({ event, db, params, now }) =>
  readClosing(db, await requireActivity(event, db, params.activityId, now), now),
)
