import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { takeInPages } from '#server/services/contributing/wiki/takeIn'
import { ActivityParams } from '#shared/contributing/activity'
import { WikiImport, WikiImported } from '#shared/contributing/wiki'

export default route(
  { params: ActivityParams, body: WikiImport, largest: 8_000_000, answer: WikiImported },
  async ({ event, db, params, body, now }) =>
    takeInPages(db, await requireContributor(event, db, params.activityId, now), body, now),
)
