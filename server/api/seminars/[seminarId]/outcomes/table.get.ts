import { requireInstructor } from '#server/access/seminar'
import { downloadRoute } from '#server/http/fileRoute'
import { exportOutcomes } from '#server/services/marking/outcomes'
import { OutcomesExportQuery } from '#shared/marking/outcomes'
import { SeminarParams } from '#shared/people/seminar'

export default downloadRoute(
  { params: SeminarParams, query: OutcomesExportQuery },
  async ({ event, db, params, query }) =>
    exportOutcomes(db, await requireInstructor(event, db, params.seminarId), query),
)
