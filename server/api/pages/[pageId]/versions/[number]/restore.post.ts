import { requirePageWriter } from '#server/access/wiki'
import { route } from '#server/http/route'
import { restoreVersion } from '#server/services/contributing/wiki/saveVersion'
import { RestoreWrite, VersionParams, VersionSaved } from '#shared/contributing/wiki'

export default route(
  { params: VersionParams, body: RestoreWrite, answer: VersionSaved },
  async ({ event, db, params, body, now }) =>
    restoreVersion(
      db,
      await requirePageWriter(event, db, params.pageId, now),
      params.pageId,
      params.number,
      body,
      now,
    ),
)
