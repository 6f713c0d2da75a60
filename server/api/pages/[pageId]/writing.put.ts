import { requirePageWriter } from '#server/access/wiki'
import { route } from '#server/http/route'
import { setWriting } from '#server/services/contributing/wiki/pages'
import { Done } from '#shared/contributing/thread'
import { PageParams, WritingWrite } from '#shared/contributing/wiki'

export default route(
  { params: PageParams, body: WritingWrite, answer: Done },
  async ({ event, db, params, body, now }) =>
    setWriting(db, await requirePageWriter(event, db, params.pageId, now), params.pageId, body.writing, now),
)
