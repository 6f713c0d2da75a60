import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { activityView } from '#server/services/planning/activityView'
import { ActivityParams, ActivityView } from '#shared/contributing/activity'

export default route({ params: ActivityParams, answer: ActivityView }, async ({ event, db, params, now }) =>
  activityView(db, await requireActivity(event, db, params.activityId, now), now),
)
