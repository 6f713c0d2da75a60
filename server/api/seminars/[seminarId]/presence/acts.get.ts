import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readPresenceActs } from '#server/services/voices/readPresence'
import { SeminarParams } from '#shared/people/seminar'
import { PresenceActs, PresenceActsQuery } from '#shared/voices/presence'

export default route(
  { params: SeminarParams, query: PresenceActsQuery, answer: PresenceActs },
  async ({ event, db, params, query, now }) =>
    readPresenceActs(db, await requireStaff(event, db, params.seminarId), query, now),
)
