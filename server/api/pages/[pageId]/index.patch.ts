import { requirePageWriter } from '#server/access/wiki'
import { route } from '#server/http/route'
import { changePage } from '#server/services/contributing/wiki/pages'
import { Done } from '#shared/contributing/thread'
import { PageParams, PagePatch } from '#shared/contributing/wiki'

export default route(
  { params: PageParams, body: PagePatch, answer: Done },
  async ({ event, db, params, body, now }) =>
    changePage(db, await requirePageWriter(event, db, params.pageId, now), params.pageId, body, now),
)
