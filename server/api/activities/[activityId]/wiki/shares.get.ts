import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { memberShares } from '#server/services/contributing/wiki/memberShares'
import { ActivityParams } from '#shared/contributing/activity'
import { WikiQuery, WikiShares } from '#shared/contributing/wiki'

export default route(
  { params: ActivityParams, query: WikiQuery, answer: WikiShares },
  async ({ event, db, params, query, now }) =>
    memberShares(db, await requireActivity(event, db, params.activityId, now), query.group ?? null, now),
)
