import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { askSecond } from '#server/services/marking/secondMarks'
import { ActivityParams } from '#shared/contributing/activity'
import { Done } from '#shared/contributing/thread'
import { SecondAsk } from '#shared/marking/desk'

export default route(
  { params: ActivityParams, body: SecondAsk, answer: Done },
  async ({ event, db, params, body, now }) =>
    askSecond(db, await requireMarker(event, db, params.activityId, now), body, now),
)
