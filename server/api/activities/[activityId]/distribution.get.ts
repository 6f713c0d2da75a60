import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { distribution } from '#server/services/marking/gradebook/distribution'
import { unseenBy } from '#server/services/marking/secondMarks'
import { ActivityParams } from '#shared/contributing/activity'
import { Distribution } from '#shared/marking/gradebook'

export default route({ params: ActivityParams, answer: Distribution }, async ({ event, db, params, now }) => {
  const actor = await requireMarker(event, db, params.activityId, now)
  return distribution(db, actor, await unseenBy(db, actor))
})
