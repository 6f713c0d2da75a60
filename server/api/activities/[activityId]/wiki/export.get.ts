import { requireActivity } from '#server/access/seminar'
import { downloadRoute } from '#server/http/fileRoute'
import { takeOutWiki } from '#server/services/contributing/wiki/takeOut'
import { ActivityParams } from '#shared/contributing/activity'
import { WikiTakeQuery } from '#shared/contributing/wiki'

/** A wiki to take along: as a site of pages, or as Markdown; either as one archive. */
export default downloadRoute(
  { params: ActivityParams, query: WikiTakeQuery },
  async ({ event, db, params, query, now }) =>
    takeOutWiki(db, await requireActivity(event, db, params.activityId, now), query, now),
)
