import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { termCard } from '#server/services/contributing/lexicon/seminarTerms'
import * as lexiconEndpoints from '#shared/contributing/lexiconEndpoints'

export default route(lexiconEndpoints.readTerm, async ({ event, db, params, now }) =>
  termCard(db, await requireMember(event, db, params.seminarId), params.termId, now),
)
