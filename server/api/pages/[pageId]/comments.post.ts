import { requirePageWriter } from '#server/kinds/wiki/requireWiki'
import { route } from '#server/http/route'
import { commentOnPage } from '#server/kinds/wiki/comments'
import * as wikiEndpoints from '#shared/kinds/wiki/endpoints'

export default route(wikiEndpoints.commentOnPage, async ({ event, db, params, body, now }) =>
  commentOnPage(db, await requirePageWriter(event, db, params.pageId, now), params.pageId, body, now),
)
