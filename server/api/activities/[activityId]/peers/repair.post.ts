import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { planRepair } from '#server/services/contributing/review/deal'
import { ActivityParams } from '#shared/contributing/activity'
import { RepairPlan, RepairView } from '#shared/marking/peers'

export default route(
  { params: ActivityParams, body: RepairPlan, answer: RepairView },
  async ({ event, db, params, body, now }) =>
    planRepair(db, await requireMarker(event, db, params.activityId, now), body),
)
