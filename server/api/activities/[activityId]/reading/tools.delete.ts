import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { dropToolsToken } from '#server/services/contributing/reading/toolsToken'
import { ActivityParams } from '#shared/contributing/activity'
import { ToolsAddress } from '#shared/contributing/reading'

export default route({ params: ActivityParams, answer: ToolsAddress }, async ({ event, db, params, now }) =>
  dropToolsToken(db, await requireActivity(event, db, params.activityId, now)),
)
