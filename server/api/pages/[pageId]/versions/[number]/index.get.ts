import { requirePageReader } from '#server/services/contributing/wiki/requireWiki'
import { route } from '#server/http/route'
import { readVersion } from '#server/services/contributing/wiki/readPage'
import * as wikiEndpoints from '#shared/contributing/wikiEndpoints'

export default route(wikiEndpoints.readPageVersion, async ({ event, db, params, now }) =>
  readVersion(db, await requirePageReader(event, db, params.pageId, now), params.pageId, params.number, now),
)
