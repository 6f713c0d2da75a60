import { withSecret } from '#server/access/limits'
import { beginSession } from '#server/access/session'
import { clientAddress } from '#server/http/client'
import { route } from '#server/http/route'
import { choosePassword } from '#server/services/people/passwords'
import { hasSecondStep } from '#server/services/people/secondStep'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.setPassword, async ({ event, db, params, body }) => {
  const person = await withSecret(db, clientAddress(event), () =>
    choosePassword(db, params.secret, body.password),
  )
  // a link in a mailbox is no second step
  if (!(await hasSecondStep(db, person.id))) await beginSession(event, db, person.id)
  return { done: true }
})
