import { requirePageReader } from '#server/access/wiki'
import { route } from '#server/http/route'
import { readPage } from '#server/services/contributing/wiki/readPage'
import { PageParams, PageView } from '#shared/contributing/wiki'

export default route({ params: PageParams, answer: PageView }, async ({ event, db, params, now }) =>
  readPage(db, await requirePageReader(event, db, params.pageId, now), params.pageId, now),
)
