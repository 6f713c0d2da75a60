import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { findInText } from '#server/services/contributing/reading/readReading'
import { ActivityParams } from '#shared/contributing/activity'
import { TextFound } from '#shared/contributing/reading'
import { TalkFindQuery } from '#shared/contributing/thread'

export default route(
  { params: ActivityParams, query: TalkFindQuery, answer: TextFound },
  async ({ event, db, params, query, now }) =>
    findInText(db, await requireActivity(event, db, params.activityId, now), query.q),
)
