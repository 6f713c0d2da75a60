import { limitAttempts } from '#server/access/attempts'
import { route } from '#server/http/route'
import { askForPassword } from '#server/services/people/account'
import { ownAddress } from '#server/services/messaging/mailServer'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.askForPassword, async ({ db, body }) => {
  await limitAttempts(db, `password:${body.email}`)
  await askForPassword(db, body.email, ownAddress())
  return { done: true }
})
