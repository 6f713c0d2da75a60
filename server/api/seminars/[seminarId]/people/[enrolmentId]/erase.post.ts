import { requireInstructor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { erasePerson } from '#server/services/keeping/erase'
import * as keepingEndpoints from '#shared/keeping/endpoints'

// also in a seminar that is over: being forgotten does not wait for a term
export default route(keepingEndpoints.erasePerson, async ({ event, db, params, body, now }) =>
  erasePerson(db, await requireInstructor(event, db, params.seminarId), params.enrolmentId, body, now),
)
