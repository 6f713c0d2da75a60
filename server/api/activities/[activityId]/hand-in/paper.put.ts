import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { tickPaper } from '#server/services/contributing/review/handIn'
import { ActivityParams } from '#shared/contributing/activity'
import { PaperWrite } from '#shared/contributing/review'
import { Done } from '#shared/contributing/thread'

export default route(
  { params: ActivityParams, body: PaperWrite, answer: Done },
  async ({ event, db, params, body, now }) =>
    tickPaper(db, await requireMarker(event, db, params.activityId, now), body, now),
)
