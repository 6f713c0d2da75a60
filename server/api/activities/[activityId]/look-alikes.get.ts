import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { findLookAlikes } from '#server/services/contributing/findLookAlikes'
import { ActivityParams } from '#shared/contributing/activity'
import { LookAlikesView } from '#shared/contributing/lookAlikes'

export default route({ params: ActivityParams, answer: LookAlikesView }, async ({ event, db, params, now }) =>
  findLookAlikes(db, await requireMarker(event, db, params.activityId, now)),
)
