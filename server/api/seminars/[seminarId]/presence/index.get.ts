import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readPresenceView } from '#server/services/voices/readPresence'
import { SeminarParams } from '#shared/people/seminar'
import { PresenceQuery, PresenceView } from '#shared/voices/presence'

export default route(
  { params: SeminarParams, query: PresenceQuery, answer: PresenceView },
  async ({ event, db, params, query, now }) =>
    readPresenceView(db, await requireStaff(event, db, params.seminarId), query, now),
)
