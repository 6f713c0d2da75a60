import { requirePageWriter } from '#server/kinds/wiki/requireWiki'
import { route } from '#server/http/route'
import { restoreVersion } from '#server/kinds/wiki/saveVersion'
import * as wikiEndpoints from '#shared/kinds/wiki/endpoints'

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
