import { requirePageWriter } from '#server/kinds/wiki/requireWiki'
import { route } from '#server/http/route'
import { savePageDraft } from '#server/kinds/wiki/pageDraft'
import * as wikiEndpoints from '#shared/kinds/wiki/endpoints'

export default route(wikiEndpoints.savePageDraft, async ({ event, db, params, body, now }) =>
  savePageDraft(db, await requirePageWriter(event, db, params.pageId, now), params.pageId, body, now),
)
