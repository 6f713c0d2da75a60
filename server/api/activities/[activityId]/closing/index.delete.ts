import { z } from 'zod'
import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { removeClosing } from '#server/services/closing/closingRounds'
import { ActivityParams } from '#shared/contributing/activity'

export default route(
  { params: ActivityParams, answer: z.object({ removed: z.literal(true) }) },
  async ({ event, db, params }) => removeClosing(db, await requirePlanner(event, db, params.activityId)),
)
