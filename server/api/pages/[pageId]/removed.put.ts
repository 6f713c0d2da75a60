import { requirePageWriter } from '#server/services/contributing/wiki/requireWiki'
import { route } from '#server/http/route'
import { removePage } from '#server/services/contributing/wiki/pages'
import * as wikiEndpoints from '#shared/contributing/wikiEndpoints'

export default route(wikiEndpoints.removePage, async ({ event, db, params, body, now }) =>
  removePage(db, await requirePageWriter(event, db, params.pageId, now), params.pageId, body.removed, now),
)
