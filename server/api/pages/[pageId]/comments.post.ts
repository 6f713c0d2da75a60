import { requirePageWriter } from '#server/services/contributing/wiki/requireWiki'
import { route } from '#server/http/route'
import { commentOnPage } from '#server/services/contributing/wiki/comments'
import * as wikiEndpoints from '#shared/contributing/wikiEndpoints'

export default route(wikiEndpoints.commentOnPage, async ({ event, db, params, body, now }) =>
  commentOnPage(db, await requirePageWriter(event, db, params.pageId, now), params.pageId, body, now),
)
