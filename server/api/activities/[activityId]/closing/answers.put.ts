import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { answerClosing } from '#server/services/closing/closingRounds'
import { ClosingAnswersBody, ClosingView } from '#shared/closing/closing'
import { ActivityParams } from '#shared/contributing/activity'

export default route(
  { params: ActivityParams, body: ClosingAnswersBody, answer: ClosingView },
  async ({ event, db, params, body, now }) =>
    answerClosing(db, await requireActivity(event, db, params.activityId, now), body.answers, now),
)
