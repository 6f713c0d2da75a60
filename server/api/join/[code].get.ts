import { withSecret } from '#server/access/limits'
import { getPerson } from '#server/access/session'
import { clientAddress } from '#server/http/client'
import { route } from '#server/http/route'
import { joinView } from '#server/services/people/joining'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.readJoiningCode, async ({ event, db, params, now }) => {
  const person = await getPerson(event)
  return withSecret(db, clientAddress(event), () => joinView(db, person, params.code, now))
})
