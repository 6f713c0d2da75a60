import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { memberShares } from '#server/services/contributing/wiki/memberShares'
import * as wikiEndpoints from '#shared/contributing/wikiEndpoints'

export default route(wikiEndpoints.readWikiShares, async ({ event, db, params, query, now }) =>
  memberShares(db, await requireActivity(event, db, params.activityId, now), query.group ?? null, now),
)
