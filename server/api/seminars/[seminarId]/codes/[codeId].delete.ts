import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { revokeCode } from '#server/services/people/joining'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.closeJoiningCode, async ({ event, db, params, now }) => {
  await revokeCode(db, await requireManager(event, db, params.seminarId), params.codeId, now)
  return { done: true }
})
