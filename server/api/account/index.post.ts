import { beginSession } from '#server/access/session'
import { route } from '#server/http/route'
import { makeFirstAccount } from '#server/services/people/account'
import { Done } from '#shared/contributing/thread'
import { AccountWrite } from '#shared/people/account'

export default route({ body: AccountWrite, answer: Done }, async ({ event, db, body }) => {
  const person = await makeFirstAccount(db, body)
  await beginSession(event, db, person.id)
  return { done: true }
})
