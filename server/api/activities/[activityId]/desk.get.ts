import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { deskView } from '#server/services/marking/desk'
import { ActivityParams } from '#shared/contributing/activity'
import { DeskView } from '#shared/marking/desk'

export default route({ params: ActivityParams, answer: DeskView }, async ({ event, db, params, now }) =>
  deskView(db, await requireMarker(event, db, params.activityId, now), now),
)
