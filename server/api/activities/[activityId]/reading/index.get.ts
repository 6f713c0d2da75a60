import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readReading } from '#server/services/contributing/reading/readReading'
import { ActivityParams } from '#shared/contributing/activity'
import { ReadingView } from '#shared/contributing/reading'

export default route({ params: ActivityParams, answer: ReadingView }, async ({ event, db, params, now }) =>
  readReading(db, await requireActivity(event, db, params.activityId, now)),
)
