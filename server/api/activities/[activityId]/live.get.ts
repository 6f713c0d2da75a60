import { requireActivity } from '#server/access/seminar'
import { streamRoute } from '#server/http/streamRoute'
import { followTalk } from '#server/live/followTalk'
import { ActivityParams } from '#shared/contributing/activity'

export default streamRoute(
  ActivityParams,
  ({ event, db, params, now }) => requireActivity(event, db, params.activityId, now),
  followTalk,
)
