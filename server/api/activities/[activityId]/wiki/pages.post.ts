import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { makePage } from '#server/kinds/wiki/pages'
import * as wikiEndpoints from '#shared/kinds/wiki/endpoints'

export default route(wikiEndpoints.makePage, async ({ event, db, params, body, now }) =>
  makePage(db, await requireContributor(event, db, params.activityId, now), body, now),
)
