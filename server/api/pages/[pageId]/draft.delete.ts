import { requirePageWriter } from '#server/services/contributing/wiki/requireWiki'
import { route } from '#server/http/route'
import { discardPageDraft } from '#server/services/contributing/wiki/pageDraft'
import * as wikiEndpoints from '#shared/contributing/wikiEndpoints'

export default route(wikiEndpoints.discardPageDraft, async ({ event, db, params, now }) =>
  discardPageDraft(db, await requirePageWriter(event, db, params.pageId, now), params.pageId, now),
)
