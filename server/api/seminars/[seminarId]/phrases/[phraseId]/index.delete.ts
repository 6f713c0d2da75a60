import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { dropPhrase } from '#server/services/marking/phrases'
import { Done } from '#shared/contributing/thread'
import { PhraseParams } from '#shared/marking/desk'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams.extend(PhraseParams.shape), answer: Done },
  async ({ event, db, params }) =>
    dropPhrase(db, await requireStaff(event, db, params.seminarId), params.phraseId),
)
