import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { composerView } from '#server/services/planning/composer'
import { ComposerView } from '#shared/planning/composer'
import { ActivityParams } from '#shared/contributing/activity'

export default route({ params: ActivityParams, answer: ComposerView }, async ({ event, db, params, now }) =>
  composerView(db, await requirePlanner(event, db, params.activityId, false), now),
)
