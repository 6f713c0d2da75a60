import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { toolsAddress } from '#server/services/contributing/reading/toolsToken'
import { ActivityParams } from '#shared/contributing/activity'
import { ToolsAddress } from '#shared/contributing/reading'

export default route({ params: ActivityParams, answer: ToolsAddress }, async ({ event, db, params, now }) =>
  toolsAddress(db, await requireActivity(event, db, params.activityId, now)),
)
