import { requireContribution } from '#server/access/seminar'
import { route } from '#server/http/route'
import { resolveComment } from '#server/kinds/wiki/comments'
import * as wikiEndpoints from '#shared/kinds/wiki/endpoints'

export default route(wikiEndpoints.resolveComment, async ({ event, db, params, body, now }) =>
  resolveComment(db, await requireContribution(event, db, params.contributionId, now), body.number, now),
)
