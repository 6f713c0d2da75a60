import { requireStaff } from '#server/access/seminar'
import { downloadRoute } from '#server/http/fileRoute'
import { exportPresence } from '#server/services/voices/presenceLog'
import { SeminarParams } from '#shared/people/seminar'
import { PresenceLogQuery } from '#shared/voices/presence'

export default downloadRoute(
  { params: SeminarParams, query: PresenceLogQuery },
  async ({ event, db, params, query, now }) =>
    exportPresence(db, await requireStaff(event, db, params.seminarId), query, now),
)
