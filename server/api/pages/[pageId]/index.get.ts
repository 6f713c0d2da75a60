import { requirePageReader } from '#server/services/contributing/wiki/requireWiki'
import { route } from '#server/http/route'
import { readPage } from '#server/services/contributing/wiki/readPage'
import * as wikiEndpoints from '#shared/contributing/wikiEndpoints'

export default route(wikiEndpoints.readPage, async ({ event, db, params, now }) =>
  readPage(db, await requirePageReader(event, db, params.pageId, now), params.pageId, now),
)
