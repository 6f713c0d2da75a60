import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setPairs } from '#server/services/contributing/review/deal'
import { ActivityParams } from '#shared/contributing/activity'
import { PairsWrite, Version } from '#shared/marking/peers'

export default route(
  { params: ActivityParams, body: PairsWrite, answer: Version },
  async ({ event, db, params, body, now }) =>
    setPairs(db, await requireMarker(event, db, params.activityId, now), body, now),
)
