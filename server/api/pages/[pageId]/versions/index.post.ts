import { requirePageWriter } from '#server/services/contributing/wiki/requireWiki'
import { route } from '#server/http/route'
import { saveVersion } from '#server/services/contributing/wiki/saveVersion'
import * as wikiEndpoints from '#shared/contributing/wikiEndpoints'

export default route(wikiEndpoints.savePageVersion, async ({ event, db, params, body, now }) =>
  saveVersion(db, await requirePageWriter(event, db, params.pageId, now), params.pageId, body, now),
)
