import { requirePageWriter } from '#server/access/wiki'
import { route } from '#server/http/route'
import { commentOnPage } from '#server/services/contributing/wiki/comments'
import { Made, PageCommentWrite, PageParams } from '#shared/contributing/wiki'

export default route(
  { params: PageParams, body: PageCommentWrite, answer: Made },
  async ({ event, db, params, body, now }) =>
    commentOnPage(db, await requirePageWriter(event, db, params.pageId, now), params.pageId, body, now),
)
