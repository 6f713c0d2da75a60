import { beginSession, endAllSessions } from '#server/access/session'
import { route } from '#server/http/route'
import { choosePassword } from '#server/services/people/account'
import { Done } from '#shared/contributing/thread'
import { PasswordWrite, SecretParams } from '#shared/people/account'

export default route(
  { params: SecretParams, body: PasswordWrite, answer: Done },
  async ({ event, db, params, body }) => {
    const person = await choosePassword(db, params.secret, body.password)
    await endAllSessions(db, person.id)
    await beginSession(event, db, person.id)
    return { done: true }
  },
)
