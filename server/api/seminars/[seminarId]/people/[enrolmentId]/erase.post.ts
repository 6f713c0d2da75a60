import { requireInstructor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { erasePerson } from '#server/services/keeping/erase'
import { Erased, EraseWrite } from '#shared/keeping/archive'
import { EnrolmentParams } from '#shared/people/people'

// also in a seminar that is over: being forgotten does not wait for a term
export default route(
  { params: EnrolmentParams, body: EraseWrite, answer: Erased },
  async ({ event, db, params, body, now }) =>
    erasePerson(db, await requireInstructor(event, db, params.seminarId), params.enrolmentId, body.name, now),
)
