import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { postContribution } from '#server/services/contributing/write'
import { ActivityParams } from '#shared/contributing/activity'
import { PostAnswer, PostWrite } from '#shared/contributing/thread'

export default route(
  { params: ActivityParams, body: PostWrite, answer: PostAnswer },
  async ({ event, db, params, body, now }) =>
    postContribution(db, await requireContributor(event, db, params.activityId, now), body, now),
)
