import { requirePageWriter } from '#server/kinds/wiki/requireWiki'
import { route } from '#server/http/route'
import { changePage } from '#server/kinds/wiki/pages'
import * as wikiEndpoints from '#shared/kinds/wiki/endpoints'

export default route(wikiEndpoints.changePage, async ({ event, db, params, body, now }) =>
  changePage(db, await requirePageWriter(event, db, params.pageId, now), params.pageId, body, now),
)
