import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readParts } from '#server/services/contributing/reading/readReading'
import { ActivityParams } from '#shared/contributing/activity'
import { PartsAnswer, PartsQuery } from '#shared/contributing/reading'

export default route(
  { params: ActivityParams, query: PartsQuery, answer: PartsAnswer },
  async ({ event, db, params, query, now }) =>
    readParts(db, await requireActivity(event, db, params.activityId, now), query.from, query.to),
)
