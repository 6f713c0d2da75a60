import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setExtension } from '#server/services/planning/publish'
import { Done } from '#shared/contributing/thread'
import { ExtensionParams, ExtensionWrite } from '#shared/planning/composer'

export default route(
  { params: ExtensionParams, body: ExtensionWrite, answer: Done },
  async ({ event, db, params, body, now }) => {
    await setExtension(db, await requirePlanner(event, db, params.activityId), params.enrolmentId, body, now)
    return { done: true }
  },
)
