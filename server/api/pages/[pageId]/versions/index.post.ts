import { requirePageWriter } from '#server/access/wiki'
import { route } from '#server/http/route'
import { saveVersion } from '#server/services/contributing/wiki/saveVersion'
import { PageParams, VersionSaved, VersionWrite } from '#shared/contributing/wiki'

export default route(
  { params: PageParams, body: VersionWrite, largest: 4_000_000, answer: VersionSaved },
  async ({ event, db, params, body, now }) =>
    saveVersion(db, await requirePageWriter(event, db, params.pageId, now), params.pageId, body, now),
)
