import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { removeClosing } from '#server/services/closing/closingSurveys'
import * as closingEndpoints from '#shared/closing/endpoints'

export default route(closingEndpoints.removeClosingQuestions, async ({ event, db, params }) =>
  removeClosing(db, await requirePlanner(event, db, params.activityId)),
)
