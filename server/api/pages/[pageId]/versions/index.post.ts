import { requirePageWriter } from '#server/kinds/wiki/requireWiki'
import { route } from '#server/http/route'
import { saveVersion } from '#server/kinds/wiki/saveVersion'
import * as wikiEndpoints from '#shared/kinds/wiki/endpoints'

export default route(wikiEndpoints.savePageVersion, async ({ event, db, params, body, now }) =>
  saveVersion(db, await requirePageWriter(event, db, params.pageId, now), params.pageId, body, now),
)
