import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { seminarTerms } from '#server/services/contributing/lexicon/seminarTerms'
import * as lexiconEndpoints from '#shared/contributing/lexiconEndpoints'

export default route(lexiconEndpoints.readTerms, async ({ event, db, params, now }) =>
  seminarTerms(db, await requireMember(event, db, params.seminarId), now),
)
