import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { moveActivity } from '#server/services/planning/moveActivity'
import { ScheduleWrite, VersionAnswer } from '#shared/planning/composer'
import { ActivityParams } from '#shared/contributing/activity'

export default route(
  { params: ActivityParams, body: ScheduleWrite, answer: VersionAnswer },
  async ({ event, db, params, body, now }) =>
    moveActivity(db, await requirePlanner(event, db, params.activityId), body, now),
)
