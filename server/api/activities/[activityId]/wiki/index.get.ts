import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readWiki } from '#server/services/contributing/wiki/readWiki'
import { ActivityParams } from '#shared/contributing/activity'
import { WikiQuery, WikiView } from '#shared/contributing/wiki'

export default route(
  { params: ActivityParams, query: WikiQuery, answer: WikiView },
  async ({ event, db, params, query, now }) =>
    readWiki(db, await requireActivity(event, db, params.activityId, now), query.group, now),
)
