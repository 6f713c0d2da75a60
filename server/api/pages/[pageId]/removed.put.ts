import { requirePageWriter } from '#server/access/wiki'
import { route } from '#server/http/route'
import { removePage } from '#server/services/contributing/wiki/pages'
import { Done } from '#shared/contributing/thread'
import { PageParams, RemovedWrite } from '#shared/contributing/wiki'

export default route(
  { params: PageParams, body: RemovedWrite, answer: Done },
  async ({ event, db, params, body, now }) =>
    removePage(db, await requirePageWriter(event, db, params.pageId, now), params.pageId, body.removed, now),
)
