import { requirePlanner } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setExtension } from '#server/services/planning/publish'
import { Done } from '#shared/contributing/thread'
import { ExtensionParams } from '#shared/planning/composer'

export default route({ params: ExtensionParams, answer: Done }, async ({ event, db, params, now }) => {
  await setExtension(db, await requirePlanner(event, db, params.activityId), params.enrolmentId, null, now)
  return { done: true }
})
