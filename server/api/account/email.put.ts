import { countAddressMail, countReentry } from '#server/access/limits'
import { requirePerson } from '#server/access/session'
import { route } from '#server/http/route'
import { accountView } from '#server/services/people/account'
import { askForAddress } from '#server/services/people/addresses'
import * as accountEndpoints from '#shared/people/accountEndpoints'

export default route(accountEndpoints.changeEmail, async ({ event, db, body }) => {
  const person = await requirePerson(event)
  const tries = await countReentry(db, person.id)
  await countAddressMail(db, person.id)
  await askForAddress(db, person, body)
  await tries.giveBack()
  return accountView(db, person)
})
