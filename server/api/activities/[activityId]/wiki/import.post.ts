import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { importPages } from '#server/services/contributing/wiki/importPages'
import * as wikiEndpoints from '#shared/contributing/wikiEndpoints'

export default route(wikiEndpoints.importPages, async ({ event, db, params, body, now }) =>
  importPages(db, await requireContributor(event, db, params.activityId, now), body, now),
)
