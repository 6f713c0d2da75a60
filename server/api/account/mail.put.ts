import { requirePerson } from '#server/access/session'
import { route } from '#server/http/route'
import { setMailChoice } from '#server/services/people/account'
import { AccountView, MailChoiceWrite } from '#shared/people/account'

export default route({ body: MailChoiceWrite, answer: AccountView }, async ({ event, db, body }) =>
  setMailChoice(db, await requirePerson(event, db), body.mailChoice),
)
