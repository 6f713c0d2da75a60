import { requireInstructor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { copySeminar } from '#server/services/planning/copySeminar'
import { SeminarCopy, SeminarMade } from '#shared/people/settings'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, body: SeminarCopy, answer: SeminarMade },
  async ({ event, db, params, body, now }) =>
    copySeminar(db, await requireInstructor(event, db, params.seminarId), body, now),
)
