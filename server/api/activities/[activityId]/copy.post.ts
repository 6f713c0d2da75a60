import { requireManager, requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { copyActivity } from '#server/services/planning/makeActivity'
import { ActivityParams } from '#shared/contributing/activity'
import { ActivityMade, CopyWrite } from '#shared/planning/composer'

export default route(
  { params: ActivityParams, body: CopyWrite, answer: ActivityMade },
  async ({ event, db, params, body, now }) =>
    copyActivity(
      db,
      await requirePlanner(event, db, params.activityId, false),
      await requireManager(event, db, body.seminarId),
      body,
      now,
    ),
)
