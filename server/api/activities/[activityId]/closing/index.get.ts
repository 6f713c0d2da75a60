import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readClosing } from '#server/services/closing/closingSurveys'
import * as closingEndpoints from '#shared/closing/endpoints'

export default route(closingEndpoints.readClosingQuestions, async ({ event, db, params, query, now }) =>
  readClosing(db, await requireActivity(event, db, params.activityId, now), now, query.round),
)
