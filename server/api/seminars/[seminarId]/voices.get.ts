import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readVoices } from '#server/services/voices/readVoices'
import { SeminarParams } from '#shared/people/seminar'
import { VoicesQuery, VoicesView } from '#shared/voices/voices'

export default route(
  { params: SeminarParams, query: VoicesQuery, answer: VoicesView },
  async ({ event, db, params, query, now }) =>
    readVoices(db, await requireStaff(event, db, params.seminarId), query, now),
)
