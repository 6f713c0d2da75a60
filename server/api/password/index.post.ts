import { countPasswordMail } from '#server/access/limits'
import { clientAddress } from '#server/http/client'
import { route } from '#server/http/route'
import { ownAddress } from '#server/mail/mailServer'
import { askForPassword } from '#server/services/people/passwords'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.askForPassword, async ({ event, db, body }) => {
  await countPasswordMail(db, body.email, clientAddress(event))
  await askForPassword(db, body.email, ownAddress())
  return { done: true }
})
