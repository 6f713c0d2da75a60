import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { ownFeed } from '#server/services/contributing/feed'
import { ActivityParams } from '#shared/contributing/activity'
import { FeedView } from '#shared/contributing/takeOut'

export default route({ params: ActivityParams, answer: FeedView }, async ({ event, db, params, now }) =>
  ownFeed(db, await requireActivity(event, db, params.activityId, now)),
)
