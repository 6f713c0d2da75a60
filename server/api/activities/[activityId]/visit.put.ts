import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { recordVisit } from '#server/services/contributing/draft'
import { ActivityParams } from '#shared/contributing/activity'
import { Done } from '#shared/contributing/thread'

export default route({ params: ActivityParams, answer: Done }, async ({ event, db, params, now }) =>
  recordVisit(db, await requireActivity(event, db, params.activityId, now), now))
