import { withSecret } from '#server/access/limits'
import { beginSession, getPerson } from '#server/access/session'
import { clientAddress } from '#server/http/client'
import { route } from '#server/http/route'
import { join } from '#server/services/people/joining'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.joinSeminar, async ({ event, db, params, body, now }) => {
  const person = await getPerson(event)
  const joined = await withSecret(db, clientAddress(event), () =>
    join(db, person, params.code, body.account, now),
  )
  if (!person) await beginSession(event, db, joined.personId)
  return joined
})
