import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { removeActivity } from '#server/services/planning/makeActivity'
import { Done } from '#shared/contributing/thread'
import { ActivityParams } from '#shared/contributing/activity'

export default route({ params: ActivityParams, answer: Done }, async ({ event, db, params, now }) => {
  await removeActivity(db, await requirePlanner(event, db, params.activityId), now)
  return { done: true }
})
