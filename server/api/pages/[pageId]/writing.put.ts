import { requirePageWriter } from '#server/kinds/wiki/requireWiki'
import { route } from '#server/http/route'
import { setWriting } from '#server/kinds/wiki/pages'
import * as wikiEndpoints from '#shared/kinds/wiki/endpoints'

export default route(wikiEndpoints.showWriting, async ({ event, db, params, body, now }) =>
  setWriting(db, await requirePageWriter(event, db, params.pageId, now), params.pageId, body.writing, now),
)
