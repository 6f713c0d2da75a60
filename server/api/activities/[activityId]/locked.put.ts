import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setLocked } from '#server/services/planning/publish'
import { Done } from '#shared/contributing/thread'
import { LockWrite } from '#shared/planning/composer'
import { ActivityParams } from '#shared/contributing/activity'

export default route(
  { params: ActivityParams, body: LockWrite, answer: Done },
  async ({ event, db, params, body, now }) => {
    await setLocked(db, await requirePlanner(event, db, params.activityId), body.locked, now)
    return { done: true }
  },
)
