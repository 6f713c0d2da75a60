import { requirePageWriter } from '#server/access/wiki'
import { route } from '#server/http/route'
import { savePageDraft } from '#server/services/contributing/wiki/pageDraft'
import { PageDraftAnswer, PageDraftWrite, PageParams } from '#shared/contributing/wiki'

export default route(
  { params: PageParams, body: PageDraftWrite, largest: 4_000_000, answer: PageDraftAnswer },
  async ({ event, db, params, body, now }) =>
    savePageDraft(db, await requirePageWriter(event, db, params.pageId, now), params.pageId, body, now),
)
