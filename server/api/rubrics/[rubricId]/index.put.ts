import { requireRubricOwner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { writeRubric } from '#server/services/marking/rubrics'
import { RubricMade, RubricParams, RubricWrite } from '#shared/marking/rubric'

export default route(
  { params: RubricParams, body: RubricWrite, answer: RubricMade },
  async ({ event, db, params, body, now }) =>
    writeRubric(db, await requireRubricOwner(event, db, params.rubricId, true), params.rubricId, body, now),
)
