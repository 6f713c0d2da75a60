import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { takeInTerms } from '#server/services/contributing/lexicon/takeIn'
import * as lexiconEndpoints from '#shared/contributing/lexiconEndpoints'

export default route(lexiconEndpoints.importTerms, async ({ event, db, params, body, now }) =>
  takeInTerms(db, await requireMarker(event, db, params.activityId, now), body, now),
)
