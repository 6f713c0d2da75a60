import { limitAttempts } from '#server/access/attempts'
import { route } from '#server/http/route'
import { askForPassword } from '#server/services/people/account'
import { ownAddress } from '#server/services/messaging/mailServer'
import { Done } from '#shared/contributing/thread'
import { PasswordAsk } from '#shared/people/account'

export default route({ body: PasswordAsk, answer: Done }, async ({ db, body }) => {
  await limitAttempts(db, `password:${body.email}`)
  await askForPassword(db, body.email, ownAddress())
  return { done: true }
})
