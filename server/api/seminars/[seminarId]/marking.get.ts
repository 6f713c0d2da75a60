import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { markingQueue } from '#server/services/marking/desk'
import { MarkingQueue } from '#shared/marking/desk'
import { SeminarParams } from '#shared/people/seminar'

export default route({ params: SeminarParams, answer: MarkingQueue }, async ({ event, db, params, now }) =>
  markingQueue(db, await requireStaff(event, db, params.seminarId), now),
)
