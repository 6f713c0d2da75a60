import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { importPages } from '#server/kinds/wiki/importPages'
import * as wikiEndpoints from '#shared/kinds/wiki/endpoints'

export default route(wikiEndpoints.importPages, async ({ event, db, params, body, now }) =>
  importPages(db, await requireContributor(event, db, params.activityId, now), body, now),
)
