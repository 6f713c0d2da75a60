import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { changePerson } from '#server/services/people/people'
import { Done } from '#shared/contributing/thread'
import { EnrolmentParams, PersonChange } from '#shared/people/people'

export default route(
  { params: EnrolmentParams, body: PersonChange, answer: Done },
  async ({ event, db, params, body, now }) => {
    await changePerson(db, await requireManager(event, db, params.seminarId), params.enrolmentId, body, now)
    return { done: true }
  },
)
