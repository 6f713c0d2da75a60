import { requireActivity } from '#server/access/seminar'
import { downloadRoute } from '#server/http/fileRoute'
import { exportWiki } from '#server/kinds/wiki/exportWiki'
import * as wikiEndpoints from '#shared/kinds/wiki/endpoints'

/** A wiki to take along: as a site of pages, or as Markdown; either as one archive. */
export default downloadRoute(wikiEndpoints.downloadWiki, async ({ event, db, params, query, now }) =>
  exportWiki(db, await requireActivity(event, db, params.activityId, now), query, now),
)
