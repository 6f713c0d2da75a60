import { requirePageWriter } from '#server/access/wiki'
import { route } from '#server/http/route'
import { claimPage } from '#server/services/contributing/wiki/pages'
import { Done } from '#shared/contributing/thread'
import { ClaimWrite, PageParams } from '#shared/contributing/wiki'

export default route(
  { params: PageParams, body: ClaimWrite, answer: Done },
  async ({ event, db, params, body, now }) =>
    claimPage(db, await requirePageWriter(event, db, params.pageId, now), params.pageId, body.claimed, now),
)
