import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readWiki } from '#server/services/contributing/wiki/readWiki'
import * as wikiEndpoints from '#shared/contributing/wikiEndpoints'

export default route(wikiEndpoints.readWiki, async ({ event, db, params, query, now }) =>
  readWiki(db, await requireActivity(event, db, params.activityId, now), query.group, now),
)
