import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { usePhrase } from '#server/services/marking/phrases'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.recordPhraseUse, async ({ event, db, params, now }) =>
  usePhrase(db, await requireStaff(event, db, params.seminarId), params.phraseId, now),
)
