import { requireModerator } from '#server/access/review'
import { route } from '#server/http/route'
import { judgeReview } from '#server/services/marking/peers/moderate'
import { Done } from '#shared/contributing/thread'
import { AllocationParams, JudgeWrite } from '#shared/marking/peers'

export default route(
  { params: AllocationParams, body: JudgeWrite, answer: Done },
  async ({ event, db, params, body, now }) =>
    judgeReview(
      db,
      await requireModerator(event, db, params.activityId, params.allocationId, now),
      body,
      now,
    ),
)
