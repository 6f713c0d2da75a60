import { requireRubricOwner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { exportRubric } from '#server/services/marking/rubrics'
import { ExportQuery, RubricExport, RubricParams } from '#shared/marking/rubric'

export default route(
  { params: RubricParams, query: ExportQuery, answer: RubricExport },
  async ({ event, db, params, query, now }) =>
    exportRubric(
      db,
      await requireRubricOwner(event, db, params.rubricId, false),
      params.rubricId,
      query.form,
      now,
    ),
)
