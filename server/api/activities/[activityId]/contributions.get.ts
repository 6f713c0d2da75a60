import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readThread } from '#server/services/contributing/readThread'
import { ActivityParams } from '#shared/contributing/activity'
import { ThreadQuery, ThreadView } from '#shared/contributing/thread'

export default route(
  { params: ActivityParams, query: ThreadQuery, answer: ThreadView },
  async ({ event, db, params, query, now }) =>
    readThread(db, await requireActivity(event, db, params.activityId, now), now, {
      first: query.first === 'true',
    }),
)
