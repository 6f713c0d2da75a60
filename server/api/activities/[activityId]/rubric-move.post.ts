import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { moveMarks } from '#server/services/marking/moveMarks'
import { ActivityParams } from '#shared/contributing/activity'
import { MoveWrite, ReturnedAnswer } from '#shared/marking/desk'

export default route(
  { params: ActivityParams, body: MoveWrite, answer: ReturnedAnswer },
  async ({ event, db, params, body, now }) =>
    moveMarks(db, await requireMarker(event, db, params.activityId, now), body, now),
)
