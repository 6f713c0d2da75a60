import { requirePageWriter } from '#server/services/contributing/wiki/requireWiki'
import { route } from '#server/http/route'
import { savePageDraft } from '#server/services/contributing/wiki/pageDraft'
import * as wikiEndpoints from '#shared/contributing/wikiEndpoints'

export default route(wikiEndpoints.savePageDraft, async ({ event, db, params, body, now }) =>
  savePageDraft(db, await requirePageWriter(event, db, params.pageId, now), params.pageId, body, now),
)
