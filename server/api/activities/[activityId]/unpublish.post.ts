import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { unpublishActivity } from '#server/services/planning/publish'
import { UnpublishWrite, VersionAnswer } from '#shared/planning/composer'
import { ActivityParams } from '#shared/contributing/activity'

export default route(
  { params: ActivityParams, body: UnpublishWrite, answer: VersionAnswer },
  async ({ event, db, params, body, now }) =>
    unpublishActivity(db, await requirePlanner(event, db, params.activityId), body, now),
)
