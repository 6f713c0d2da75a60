import { requirePageWriter } from '#server/access/wiki'
import { route } from '#server/http/route'
import { discardPageDraft } from '#server/services/contributing/wiki/pageDraft'
import { Done } from '#shared/contributing/thread'
import { PageParams } from '#shared/contributing/wiki'

export default route({ params: PageParams, answer: Done }, async ({ event, db, params, now }) =>
  discardPageDraft(db, await requirePageWriter(event, db, params.pageId, now), params.pageId, now),
)
