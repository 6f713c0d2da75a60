import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readTexts } from '#server/services/contributing/readThread'
import { ActivityParams } from '#shared/contributing/activity'
import { IdsQuery, TextsAnswer } from '#shared/contributing/thread'

export default route(
  { params: ActivityParams, query: IdsQuery, answer: TextsAnswer },
  async ({ event, db, params, query, now }) =>
    readTexts(db, await requireActivity(event, db, params.activityId, now), query.ids, now),
)
