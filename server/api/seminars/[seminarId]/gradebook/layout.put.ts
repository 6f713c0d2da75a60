import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { layOutGradebook } from '#server/services/marking/gradebook/gradebook'
import { Done } from '#shared/contributing/thread'
import { GradebookLayout } from '#shared/marking/gradebook'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, body: GradebookLayout, answer: Done },
  async ({ event, db, params, body }) =>
    layOutGradebook(db, await requireStaff(event, db, params.seminarId), body),
)
