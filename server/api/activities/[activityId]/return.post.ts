import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { returnHeld } from '#server/services/marking/returnMark'
import { ActivityParams } from '#shared/contributing/activity'
import { ReturnedAnswer, ReturnHeld } from '#shared/marking/desk'

export default route(
  { params: ActivityParams, body: ReturnHeld, answer: ReturnedAnswer },
  async ({ event, db, params, body, now }) =>
    returnHeld(db, await requireMarker(event, db, params.activityId, now), body.enrolmentIds, body.key, now),
)
