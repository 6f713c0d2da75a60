import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { changeActivity } from '#server/services/planning/changeActivity'
import { ActivityPatch, ComposerView } from '#shared/planning/composer'
import { ActivityParams } from '#shared/contributing/activity'

export default route(
  { params: ActivityParams, body: ActivityPatch, answer: ComposerView },
  async ({ event, db, params, body, now }) =>
    changeActivity(db, await requirePlanner(event, db, params.activityId), body, now),
)
