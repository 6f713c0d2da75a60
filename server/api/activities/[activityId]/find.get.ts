import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { findInTalk } from '#server/services/contributing/readThread'
import { ActivityParams } from '#shared/contributing/activity'
import { TalkFindQuery, TalkFound } from '#shared/contributing/thread'

export default route(
  { params: ActivityParams, query: TalkFindQuery, answer: TalkFound },
  async ({ event, db, params, query, now }) =>
    findInTalk(db, await requireActivity(event, db, params.activityId, now), query.q, now),
)
