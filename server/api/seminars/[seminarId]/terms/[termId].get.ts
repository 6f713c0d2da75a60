import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { termCard } from '#server/kinds/lexicon/seminarTerms'
import * as lexiconEndpoints from '#shared/kinds/lexicon/endpoints'

export default route(lexiconEndpoints.readTerm, async ({ event, db, params, now }) =>
  termCard(db, await requireMember(event, db, params.seminarId), params.termId, now),
)
