import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { makeRubric } from '#server/services/marking/rubrics'
import { RubricMade, RubricMake } from '#shared/marking/rubric'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, body: RubricMake, answer: RubricMade },
  async ({ event, db, params, body, now }) =>
    makeRubric(db, await requireManager(event, db, params.seminarId), body.key, body.rubric, now),
)
