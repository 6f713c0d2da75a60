import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { makePage } from '#server/services/contributing/wiki/pages'
import * as wikiEndpoints from '#shared/contributing/wikiEndpoints'

export default route(wikiEndpoints.makePage, async ({ event, db, params, body, now }) =>
  makePage(db, await requireContributor(event, db, params.activityId, now), body, now),
)
