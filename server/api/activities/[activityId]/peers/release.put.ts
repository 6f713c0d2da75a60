import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { release } from '#server/services/marking/peers/moderate'
import { ActivityParams } from '#shared/contributing/activity'
import { Done } from '#shared/contributing/thread'
import { ReleaseWrite } from '#shared/marking/peers'

export default route(
  { params: ActivityParams, body: ReleaseWrite, answer: Done },
  async ({ event, db, params, body, now }) =>
    release(db, await requireMarker(event, db, params.activityId, now), body.released, now),
)
