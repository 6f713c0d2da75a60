import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { saveDraft } from '#server/services/contributing/draft'
import { ActivityParams } from '#shared/contributing/activity'
import { DraftView, DraftWrite } from '#shared/contributing/thread'

export default route(
  { params: ActivityParams, body: DraftWrite, answer: DraftView },
  async ({ event, db, params, body, now }) =>
    saveDraft(db, await requireContributor(event, db, params.activityId, now), body, now),
)
