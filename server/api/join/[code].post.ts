import { beginSession, getPerson } from '#server/access/session'
import { route } from '#server/http/route'
import { join } from '#server/services/people/joining'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.joinSeminar, async ({ event, db, params, body, now }) => {
  const person = await getPerson(event, db)
  const joined = await join(db, person, params.code, body.account, now)
  if (!person) await beginSession(event, db, joined.personId)
  return joined
})
