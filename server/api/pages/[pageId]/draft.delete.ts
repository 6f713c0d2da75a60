import { requirePageWriter } from '#server/kinds/wiki/requireWiki'
import { route } from '#server/http/route'
import { discardPageDraft } from '#server/kinds/wiki/pageDraft'
import * as wikiEndpoints from '#shared/kinds/wiki/endpoints'

export default route(wikiEndpoints.discardPageDraft, async ({ event, db, params, now }) =>
  discardPageDraft(db, await requirePageWriter(event, db, params.pageId, now), params.pageId, now),
)
