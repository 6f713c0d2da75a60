import { requirePerson } from '#server/access/session'
import { route } from '#server/http/route'
import { setCalendar } from '#server/services/people/account'
import { AccountView } from '#shared/people/account'

export default route({ answer: AccountView }, async ({ event, db }) =>
  setCalendar(db, await requirePerson(event, db), true),
)
