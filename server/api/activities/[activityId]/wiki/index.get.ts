import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readWiki } from '#server/kinds/wiki/readWiki'
import * as wikiEndpoints from '#shared/kinds/wiki/endpoints'

export default route(wikiEndpoints.readWiki, async ({ event, db, params, query, now }) =>
  readWiki(db, await requireActivity(event, db, params.activityId, now), query.group, now),
)
