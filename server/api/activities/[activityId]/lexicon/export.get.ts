import { requireActivity } from '#server/access/seminar'
import { downloadRoute } from '#server/http/fileRoute'
import { exportTerms } from '#server/kinds/lexicon/exportTerms'
import * as lexiconEndpoints from '#shared/kinds/lexicon/endpoints'

/** A lexicon to take along: as a table, as data, or to be read. */
export default downloadRoute(lexiconEndpoints.downloadTerms, async ({ event, db, params, query, now }) =>
  exportTerms(db, await requireActivity(event, db, params.activityId, now), query.as, now),
)
