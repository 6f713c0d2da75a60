import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setClosing } from '#server/services/closing/closingRounds'
import { ClosingSet, ClosingView } from '#shared/closing/closing'
import { ActivityParams } from '#shared/contributing/activity'

export default route(
  { params: ActivityParams, body: ClosingSet, answer: ClosingView },
  async ({ event, db, params, body, now }) =>
    setClosing(db, await requirePlanner(event, db, params.activityId), body, now),
)
