import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { answerClosing } from '#server/services/closing/closingSurveys'
import * as closingEndpoints from '#shared/closing/endpoints'

export default route(closingEndpoints.answerClosingQuestions, async ({ event, db, params, body, now }) =>
  answerClosing(db, await requireActivity(event, db, params.activityId, now), body.answers, now),
)
