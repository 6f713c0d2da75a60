import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { putSample } from '#server/services/marking/peers/moderate'
import { ActivityParams } from '#shared/contributing/activity'
import { Done } from '#shared/contributing/thread'
import { SampleWrite } from '#shared/marking/peers'

export default route(
  { params: ActivityParams, body: SampleWrite, answer: Done },
  async ({ event, db, params, body, now }) =>
    putSample(db, await requireMarker(event, db, params.activityId, now), body, now),
)
