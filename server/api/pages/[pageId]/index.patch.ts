import { requirePageWriter } from '#server/services/contributing/wiki/requireWiki'
import { route } from '#server/http/route'
import { changePage } from '#server/services/contributing/wiki/pages'
import * as wikiEndpoints from '#shared/contributing/wikiEndpoints'

export default route(wikiEndpoints.changePage, async ({ event, db, params, body, now }) =>
  changePage(db, await requirePageWriter(event, db, params.pageId, now), params.pageId, body, now),
)
