import { requireStaff } from '#server/access/seminar'
import { downloadRoute } from '#server/http/fileRoute'
import { exportVoices } from '#server/services/voices/exportVoices'
import { SeminarParams } from '#shared/people/seminar'
import { VoicesQuery } from '#shared/voices/voices'

export default downloadRoute(
  { params: SeminarParams, query: VoicesQuery },
  async ({ event, db, params, query, now }) =>
    exportVoices(db, await requireStaff(event, db, params.seminarId), query, now),
)
