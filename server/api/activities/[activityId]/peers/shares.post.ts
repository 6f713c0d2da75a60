import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { shareMark } from '#server/services/marking/peers/takeConsensus'
import { ActivityParams } from '#shared/contributing/activity'
import { SharesWrite, TakeAnswer } from '#shared/marking/peers'

export default route(
  { params: ActivityParams, body: SharesWrite, answer: TakeAnswer },
  async ({ event, db, params, body, now }) =>
    shareMark(db, await requireMarker(event, db, params.activityId, now), body, now),
)
