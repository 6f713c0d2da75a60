import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { takeConsensus } from '#server/services/marking/peers/takeConsensus'
import { ActivityParams } from '#shared/contributing/activity'
import { TakeAnswer, TakeWrite } from '#shared/marking/peers'

export default route(
  { params: ActivityParams, body: TakeWrite, answer: TakeAnswer },
  async ({ event, db, params, body, now }) =>
    takeConsensus(db, await requireMarker(event, db, params.activityId, now), body, now),
)
