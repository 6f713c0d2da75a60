import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { keepPhrase } from '#server/services/marking/phrases'
import { PhraseView, PhraseWrite } from '#shared/marking/desk'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, body: PhraseWrite, answer: PhraseView },
  async ({ event, db, params, body, now }) =>
    keepPhrase(db, await requireStaff(event, db, params.seminarId), body, now),
)
