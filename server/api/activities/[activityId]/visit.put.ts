import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { recordVisit } from '#server/services/contributing/draft'
import { ActivityParams } from '#shared/contributing/activity'
import { Done, VisitWrite } from '#shared/contributing/thread'

export default route(
  { params: ActivityParams, body: VisitWrite, answer: Done },
  async ({ event, db, params, body, now }) =>
    recordVisit(db, await requireActivity(event, db, params.activityId, now), body.seq, now),
)
