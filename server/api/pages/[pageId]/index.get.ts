import { requirePageReader } from '#server/kinds/wiki/requireWiki'
import { route } from '#server/http/route'
import { readPage } from '#server/kinds/wiki/readPage'
import * as wikiEndpoints from '#shared/kinds/wiki/endpoints'

export default route(wikiEndpoints.readPage, async ({ event, db, params, now }) =>
  readPage(db, await requirePageReader(event, db, params.pageId, now), params.pageId, now),
)
