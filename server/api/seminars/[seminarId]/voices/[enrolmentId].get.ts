import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readStudent } from '#server/services/voices/readStudent'
import * as voicesEndpoints from '#shared/voices/endpoints'

export default route(voicesEndpoints.readStudent, async ({ event, db, params, now }) =>
  readStudent(db, await requireStaff(event, db, params.seminarId), params.enrolmentId, now),
)
