import { requireCorrespondent } from '#server/access/seminar'
import { route } from '#server/http/route'
import { listThreads } from '#server/services/messaging/messageThreads'
import { ThreadList, ThreadListQuery } from '#shared/messaging/messages'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, query: ThreadListQuery, answer: ThreadList },
  async ({ event, db, params, query }) =>
    listThreads(db, await requireCorrespondent(event, db, params.seminarId), query),
)
