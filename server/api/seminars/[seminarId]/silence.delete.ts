import { requireInstructor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { endSilence } from '#server/services/people/silence'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.endSilence, async ({ event, db, params, now }) => {
  await endSilence(db, await requireInstructor(event, db, params.seminarId), now)
  return { done: true }
})
