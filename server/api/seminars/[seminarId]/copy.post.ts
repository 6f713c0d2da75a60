import { requireInstructor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { copySeminar } from '#server/services/composing/copySeminar'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.copySeminar, async ({ event, db, params, body, now }) =>
  copySeminar(db, await requireInstructor(event, db, params.seminarId), body, now),
)
