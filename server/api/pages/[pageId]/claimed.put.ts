import { requirePageWriter } from '#server/services/contributing/wiki/requireWiki'
import { route } from '#server/http/route'
import { claimPage } from '#server/services/contributing/wiki/pages'
import * as wikiEndpoints from '#shared/contributing/wikiEndpoints'

export default route(wikiEndpoints.claimPage, async ({ event, db, params, body, now }) =>
  claimPage(db, await requirePageWriter(event, db, params.pageId, now), params.pageId, body.claimed, now),
)
