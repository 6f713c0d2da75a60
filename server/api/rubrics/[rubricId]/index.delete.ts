import { requireRubricOwner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { archiveRubric } from '#server/services/rubrics/rubrics'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.removeRubric, async ({ event, db, params, now }) => {
  await archiveRubric(
    db,
    await requireRubricOwner(event, db, params.rubricId, true),
    params.rubricId,
    true,
    now,
  )
  return { done: true }
})
