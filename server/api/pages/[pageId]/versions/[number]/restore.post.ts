import { requirePageWriter } from '#server/services/contributing/wiki/requireWiki'
import { route } from '#server/http/route'
import { restoreVersion } from '#server/services/contributing/wiki/saveVersion'
import * as wikiEndpoints from '#shared/contributing/wikiEndpoints'

export default route(wikiEndpoints.restorePageVersion, async ({ event, db, params, body, now }) =>
  restoreVersion(
    db,
    await requirePageWriter(event, db, params.pageId, now),
    params.pageId,
    params.number,
    body,
    now,
  ),
)
