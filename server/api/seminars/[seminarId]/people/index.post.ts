import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { addPerson } from '#server/services/people/people'
import { PersonAnswer, PersonWrite } from '#shared/people/people'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, body: PersonWrite, answer: PersonAnswer },
  async ({ event, db, params, body, now }) =>
    addPerson(db, await requireManager(event, db, params.seminarId), body, now),
)
