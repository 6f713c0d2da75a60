import { requirePageWriter } from '#server/services/contributing/wiki/requireWiki'
import { route } from '#server/http/route'
import { setWriting } from '#server/services/contributing/wiki/pages'
import * as wikiEndpoints from '#shared/contributing/wikiEndpoints'

export default route(wikiEndpoints.showWriting, async ({ event, db, params, body, now }) =>
  setWriting(db, await requirePageWriter(event, db, params.pageId, now), params.pageId, body.writing, now),
)
