import { countReentry } from '#server/access/limits'
import { requireSession } from '#server/access/session'
import { route } from '#server/http/route'
import { changePassword } from '#server/services/people/passwords'
import * as accountEndpoints from '#shared/people/accountEndpoints'

export default route(accountEndpoints.changePassword, async ({ event, db, body }) => {
  const session = await requireSession(event)
  const tries = await countReentry(db, session.person.id)
  await changePassword(db, session, body)
  await tries.giveBack()
  return { done: true }
})
