import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { namesIn } from '#server/services/contributing/review/names'
import { ActivityParams } from '#shared/contributing/activity'
import { NamesCheck, NamesFound } from '#shared/contributing/review'

export default route(
  { params: ActivityParams, body: NamesCheck, answer: NamesFound },
  async ({ event, db, params, body, now }) =>
    namesIn(db, await requireContributor(event, db, params.activityId, now), body),
)
