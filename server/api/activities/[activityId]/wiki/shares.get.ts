import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { memberShares } from '#server/kinds/wiki/memberShares'
import * as wikiEndpoints from '#shared/kinds/wiki/endpoints'

export default route(wikiEndpoints.readWikiShares, async ({ event, db, params, query, now }) =>
  memberShares(db, await requireActivity(event, db, params.activityId, now), query.group ?? null, now),
)
