import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { usePhrase } from '#server/services/marking/phrases'
import { PhraseParams, PhraseView } from '#shared/marking/desk'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams.extend(PhraseParams.shape), answer: PhraseView },
  async ({ event, db, params, now }) =>
    usePhrase(db, await requireStaff(event, db, params.seminarId), params.phraseId, now),
)
