import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { effectOf } from '#server/services/planning/effect'
import { EffectAsk, EffectView } from '#shared/planning/composer'
import { ActivityParams } from '#shared/contributing/activity'

export default route(
  { params: ActivityParams, body: EffectAsk, answer: EffectView },
  async ({ event, db, params, body, now }) =>
    effectOf(db, await requirePlanner(event, db, params.activityId, false), body.change, now),
)
