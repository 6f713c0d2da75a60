import { openSessions, requireSession } from '#server/access/session'
import { route } from '#server/http/route'
import * as accountEndpoints from '#shared/people/accountEndpoints'

export default route(accountEndpoints.readSessions, async ({ event, db }) => {
  const { id, person } = await requireSession(event)
  const rows = await openSessions(db, person)
  return {
    sessions: rows.map(s => ({
      id: s.id,
      agent: s.agent,
      startedAt: s.madeAt.toISOString(),
      lastSeenAt: s.lastSeenAt.toISOString(),
      isThis: s.id === id,
    })),
  }
})
