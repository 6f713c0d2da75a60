import { requirePageWriter } from '#server/kinds/wiki/requireWiki'
import { route } from '#server/http/route'
import { claimPage } from '#server/kinds/wiki/pages'
import * as wikiEndpoints from '#shared/kinds/wiki/endpoints'

export default route(wikiEndpoints.claimPage, async ({ event, db, params, body, now }) =>
  claimPage(db, await requirePageWriter(event, db, params.pageId, now), params.pageId, body.claimed, now),
)
