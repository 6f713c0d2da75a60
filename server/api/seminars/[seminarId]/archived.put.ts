import { requireInstructor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setArchived } from '#server/services/people/seminars'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.archiveSeminar, async ({ event, db, params, body, now }) => {
  await setArchived(db, await requireInstructor(event, db, params.seminarId), body.archived, now)
  return { done: true }
})
