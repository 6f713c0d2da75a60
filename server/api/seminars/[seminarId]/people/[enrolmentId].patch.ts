import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { changePerson } from '#server/services/people/people'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.changePerson, async ({ event, db, params, body, now }) => {
  await changePerson(db, await requireManager(event, db, params.seminarId), params.enrolmentId, body, now)
  return { done: true }
})
