import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { revokeCode } from '#server/services/people/joining'
import { Done } from '#shared/contributing/thread'
import { CodeIdParams } from '#shared/people/people'

export default route({ params: CodeIdParams, answer: Done }, async ({ event, db, params, now }) => {
  await revokeCode(db, await requireManager(event, db, params.seminarId), params.codeId, now)
  return { done: true }
})
