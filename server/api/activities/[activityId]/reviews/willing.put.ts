import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setWilling } from '#server/services/contributing/review/saveReview'
import { ActivityParams } from '#shared/contributing/activity'
import { WillingWrite } from '#shared/contributing/review'
import { Done } from '#shared/contributing/thread'

export default route(
  { params: ActivityParams, body: WillingWrite, answer: Done },
  async ({ event, db, params, body, now }) =>
    setWilling(db, await requireContributor(event, db, params.activityId, now), body.more),
)
