import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { distribution } from '#server/services/marking/gradebook/distribution'
import { unseenBy } from '#server/services/marking/secondMarks'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.readDistribution, async ({ event, db, params, now }) => {
  const actor = await requireMarker(event, db, params.activityId, now)
  return distribution(db, actor, await unseenBy(db, actor))
})
