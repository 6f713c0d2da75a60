import { nothingHere } from '#server/access/seminar'
import { endOneSession, requirePerson } from '#server/access/session'
import { route } from '#server/http/route'
import * as accountEndpoints from '#shared/people/accountEndpoints'

export default route(accountEndpoints.endSession, async ({ event, db, params }) => {
  const ended = await endOneSession(db, await requirePerson(event), params.sessionId)
  if (ended === 0) throw nothingHere()
  return { done: true }
})
