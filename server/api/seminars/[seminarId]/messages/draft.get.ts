import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { draftFor } from '#server/services/messaging/writeTo'
import { DraftQuery, DraftView } from '#shared/messaging/messages'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, query: DraftQuery, answer: DraftView },
  async ({ event, db, params, query, now }) =>
    draftFor(db, await requireStaff(event, db, params.seminarId), query.to, query.activity, now),
)
