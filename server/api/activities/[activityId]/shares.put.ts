import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { shareOut } from '#server/services/marking/markers'
import { ActivityParams } from '#shared/contributing/activity'
import { Done } from '#shared/contributing/thread'
import { ShareWrite } from '#shared/marking/desk'

export default route(
  { params: ActivityParams, body: ShareWrite, answer: Done },
  async ({ event, db, params, body, now }) =>
    shareOut(db, await requireMarker(event, db, params.activityId, now), body, now),
)
