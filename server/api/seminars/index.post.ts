import { requirePerson } from '#server/access/session'
import { route } from '#server/http/route'
import { foundSeminar } from '#server/services/people/seminars'
import { SeminarMade, SeminarWrite } from '#shared/people/settings'

export default route({ body: SeminarWrite, answer: SeminarMade }, async ({ event, db, body, now }) =>
  foundSeminar(db, await requirePerson(event, db), body, now),
)
