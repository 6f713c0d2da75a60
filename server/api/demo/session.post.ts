import { beginSession } from '#server/access/session'
import { route } from '#server/http/route'
import { requireDemoPerson } from '#server/services/people/session'
import { Done } from '#shared/contributing/thread'
import { DemoSignIn } from '#shared/people/session'

export default route({ body: DemoSignIn, answer: Done }, async ({ event, db, body }) => {
  const person = await requireDemoPerson(db, body.personId)
  await beginSession(event, db, person.id)
  return { done: true }
})
