import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { returnAt } from '#server/services/marking/returnMark'
import { ActivityParams } from '#shared/contributing/activity'
import { ReturnAtWrite, ReturnedAnswer } from '#shared/marking/desk'

export default route(
  { params: ActivityParams, body: ReturnAtWrite, answer: ReturnedAnswer },
  async ({ event, db, params, body, now }) =>
    returnAt(
      db,
      await requireMarker(event, db, params.activityId, now),
      body.enrolmentIds,
      body.at ? new Date(body.at) : null,
      body.key,
      now,
    ),
)
