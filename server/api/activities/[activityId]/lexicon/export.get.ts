import { requireActivity } from '#server/access/seminar'
import { downloadRoute } from '#server/http/fileRoute'
import { takeOutLexicon } from '#server/services/contributing/lexicon/takeOut'
import * as lexiconEndpoints from '#shared/contributing/lexiconEndpoints'

/** A lexicon to take along: as a table, as data, or to be read. */
export default downloadRoute(lexiconEndpoints.downloadTerms, async ({ event, db, params, query, now }) =>
  takeOutLexicon(db, await requireActivity(event, db, params.activityId, now), query.as, now),
)
