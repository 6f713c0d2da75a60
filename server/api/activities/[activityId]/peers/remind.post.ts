import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { remind } from '#server/services/marking/peers/moderate'
import { ActivityParams } from '#shared/contributing/activity'
import { RemindWrite, Told } from '#shared/marking/peers'

export default route(
  { params: ActivityParams, body: RemindWrite, answer: Told },
  async ({ event, db, params, body, now }) =>
    remind(db, await requireMarker(event, db, params.activityId, now), body, now),
)
