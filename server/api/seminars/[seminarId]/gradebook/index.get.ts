import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { gradebook } from '#server/services/marking/gradebook/gradebook'
import { Gradebook } from '#shared/marking/gradebook'
import { SeminarParams } from '#shared/people/seminar'

export default route({ params: SeminarParams, answer: Gradebook }, async ({ event, db, params, now }) =>
  gradebook(db, await requireStaff(event, db, params.seminarId), now),
)
