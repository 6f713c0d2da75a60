import { endOtherSessions, requireSession } from '#server/access/session'
import { route } from '#server/http/route'
import * as accountEndpoints from '#shared/people/accountEndpoints'

export default route(accountEndpoints.endOtherSessions, async ({ event, db }) => ({
  ended: await endOtherSessions(db, await requireSession(event)),
}))
