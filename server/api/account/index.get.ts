import { requirePerson } from '#server/access/session'
import { route } from '#server/http/route'
import { accountView } from '#server/services/people/account'
import { AccountView } from '#shared/people/account'

export default route({ answer: AccountView }, async ({ event, db }) =>
  accountView(db, await requirePerson(event, db)),
)
