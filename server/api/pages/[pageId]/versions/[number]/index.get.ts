import { requirePageReader } from '#server/access/wiki'
import { route } from '#server/http/route'
import { readVersion } from '#server/services/contributing/wiki/readPage'
import { VersionParams, VersionView } from '#shared/contributing/wiki'

export default route({ params: VersionParams, answer: VersionView }, async ({ event, db, params, now }) =>
  readVersion(db, await requirePageReader(event, db, params.pageId, now), params.pageId, params.number, now),
)
