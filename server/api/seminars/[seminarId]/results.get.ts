import { requireStaff } from '#server/access/seminar'
import { downloadRoute } from '#server/http/fileRoute'
import { exportResults } from '#server/services/marking/results/exportResults'
import { ResultsQuery } from '#shared/marking/gradebook'
import { SeminarParams } from '#shared/people/seminar'

export default downloadRoute(
  { params: SeminarParams, query: ResultsQuery },
  async ({ event, db, params, query, now }) =>
    exportResults(
      db,
      await requireStaff(event, db, params.seminarId),
      query.form,
      query.activity ?? null,
      now,
    ),
)
