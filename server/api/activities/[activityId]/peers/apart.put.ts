import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setApart } from '#server/services/contributing/review/deal'
import { ActivityParams } from '#shared/contributing/activity'
import { Done } from '#shared/contributing/thread'
import { ApartWrite } from '#shared/marking/peers'

export default route(
  { params: ActivityParams, body: ApartWrite, answer: Done },
  async ({ event, db, params, body, now }) =>
    setApart(db, await requireMarker(event, db, params.activityId, now), body.pairs),
)
