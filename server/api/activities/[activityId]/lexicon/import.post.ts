import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { importTerms } from '#server/kinds/lexicon/importTerms'
import * as lexiconEndpoints from '#shared/kinds/lexicon/endpoints'

export default route(lexiconEndpoints.importTerms, async ({ event, db, params, body, now }) =>
  importTerms(db, await requireMarker(event, db, params.activityId, now), body, now),
)
