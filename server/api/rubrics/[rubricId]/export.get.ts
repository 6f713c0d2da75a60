import { requireRubricOwner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { exportRubric } from '#server/services/rubrics/exchangeRubrics'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.exportRubric, async ({ event, db, params, query, now }) =>
  exportRubric(
    db,
    await requireRubricOwner(event, db, params.rubricId, false),
    params.rubricId,
    query.form,
    now,
  ),
)
