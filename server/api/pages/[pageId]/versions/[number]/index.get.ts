import { requirePageReader } from '#server/kinds/wiki/requireWiki'
import { route } from '#server/http/route'
import { readVersion } from '#server/kinds/wiki/readPage'
import * as wikiEndpoints from '#shared/kinds/wiki/endpoints'

export default route(wikiEndpoints.readPageVersion, async ({ event, db, params, now }) =>
  readVersion(db, await requirePageReader(event, db, params.pageId, now), params.pageId, params.number, now),
)
