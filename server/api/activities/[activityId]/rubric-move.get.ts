import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { moveView } from '#server/services/marking/moveMarks'
import { ActivityParams } from '#shared/contributing/activity'
import { MoveView } from '#shared/marking/desk'

export default route({ params: ActivityParams, answer: MoveView }, async ({ event, db, params, now }) =>
  moveView(db, await requireMarker(event, db, params.activityId, now), now),
)
