import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { discardDraft } from '#server/services/contributing/draft'
import { ActivityParams } from '#shared/contributing/activity'
import { Done, DraftPlace } from '#shared/contributing/thread'

export default route(
  { params: ActivityParams, body: DraftPlace, answer: Done },
  async ({ event, db, params, body, now }) =>
    discardDraft(db, await requireContributor(event, db, params.activityId, now), body),
)
