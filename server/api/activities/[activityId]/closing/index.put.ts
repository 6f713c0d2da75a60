import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setClosing } from '#server/services/closing/closingSurveys'
import * as closingEndpoints from '#shared/closing/endpoints'

export default route(closingEndpoints.setClosingQuestions, async ({ event, db, params, body, now }) =>
  setClosing(db, await requirePlanner(event, db, params.activityId), body, now),
)
