import { countAddressMail } from '#server/access/limits'
import { requirePerson } from '#server/access/session'
import { route } from '#server/http/route'
import { askForConfirmation } from '#server/services/people/addresses'
import * as accountEndpoints from '#shared/people/accountEndpoints'

export default route(accountEndpoints.askForConfirmation, async ({ event, db }) => {
  const person = await requirePerson(event)
  await countAddressMail(db, person.id)
  await askForConfirmation(db, person)
  return { done: true }
})
