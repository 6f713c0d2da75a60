import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { takeInPages } from '#server/services/contributing/wiki/takeIn'
import * as wikiEndpoints from '#shared/contributing/wikiEndpoints'

export default route(wikiEndpoints.importPages, async ({ event, db, params, body, now }) =>
  takeInPages(db, await requireContributor(event, db, params.activityId, now), body, now),
)
