import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { seminarTerms } from '#server/kinds/lexicon/seminarTerms'
import * as lexiconEndpoints from '#shared/kinds/lexicon/endpoints'

export default route(lexiconEndpoints.readTerms, async ({ event, db, params, now }) =>
  seminarTerms(db, await requireMember(event, db, params.seminarId), now),
)
