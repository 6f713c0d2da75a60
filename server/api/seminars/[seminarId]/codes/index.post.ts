import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { makeCode } from '#server/services/people/joining'
import { CodeWrite, PersonAnswer } from '#shared/people/people'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, body: CodeWrite, answer: PersonAnswer },
  async ({ event, db, params, body, now }) =>
    makeCode(db, await requireManager(event, db, params.seminarId), body, now),
)
