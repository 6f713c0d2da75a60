import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setNamedInFeeds } from '#server/services/contributing/feed'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.chooseNameInFeeds, async ({ event, db, params, body }) =>
  setNamedInFeeds(db, await requireMember(event, db, params.seminarId), body.named),
)
