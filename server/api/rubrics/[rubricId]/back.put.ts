import { requireRubricOwner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { archiveRubric } from '#server/services/marking/rubrics'
import { Done } from '#shared/contributing/thread'
import { RubricParams } from '#shared/marking/rubric'

export default route({ params: RubricParams, answer: Done }, async ({ event, db, params, now }) => {
  await archiveRubric(
    db,
    await requireRubricOwner(event, db, params.rubricId, true),
    params.rubricId,
    false,
    now,
  )
  return { done: true }
})
