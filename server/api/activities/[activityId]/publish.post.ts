import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { publishActivity } from '#server/services/planning/publish'
import { PublishWrite, VersionAnswer } from '#shared/planning/composer'
import { ActivityParams } from '#shared/contributing/activity'

export default route(
  { params: ActivityParams, body: PublishWrite, answer: VersionAnswer },
  async ({ event, db, params, body, now }) =>
    publishActivity(db, await requirePlanner(event, db, params.activityId), body, now),
)
