import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { dealOut } from '#server/services/contributing/review/deal'
import { ActivityParams } from '#shared/contributing/activity'
import { DealWrite, Version } from '#shared/marking/peers'

export default route(
  { params: ActivityParams, body: DealWrite, answer: Version },
  async ({ event, db, params, body, now }) =>
    dealOut(db, await requireMarker(event, db, params.activityId, now), body, now),
)
