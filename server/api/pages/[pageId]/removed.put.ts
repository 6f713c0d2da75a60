import { requirePageWriter } from '#server/kinds/wiki/requireWiki'
import { route } from '#server/http/route'
import { removePage } from '#server/kinds/wiki/pages'
import * as wikiEndpoints from '#shared/kinds/wiki/endpoints'

export default route(wikiEndpoints.removePage, async ({ event, db, params, body, now }) =>
  removePage(db, await requirePageWriter(event, db, params.pageId, now), params.pageId, body.removed, now),
)
