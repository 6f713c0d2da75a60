import { requireStaff } from '#server/access/seminar'
import { downloadRoute } from '#server/http/fileRoute'
import { exportResults } from '#server/services/marking/results/exportResults'
import * as gradebookEndpoints from '#shared/marking/gradebookEndpoints'

export default downloadRoute(gradebookEndpoints.downloadResults, async ({ event, db, params, query, now }) =>
  exportResults(db, await requireStaff(event, db, params.seminarId), query.form, query.activity ?? null, now),
)
