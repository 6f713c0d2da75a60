import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { makePage } from '#server/services/contributing/wiki/pages'
import { ActivityParams } from '#shared/contributing/activity'
import { Made, PageMake } from '#shared/contributing/wiki'

export default route(
  { params: ActivityParams, body: PageMake, answer: Made },
  async ({ event, db, params, body, now }) =>
    makePage(db, await requireContributor(event, db, params.activityId, now), body, now),
)
