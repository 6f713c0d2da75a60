import { getPerson } from '#server/access/session'
import { route } from '#server/http/route'
import { joinView } from '#server/services/people/joining'
import { CodeParams, JoinView } from '#shared/people/account'

export default route({ params: CodeParams, answer: JoinView }, async ({ event, db, params, now }) =>
  joinView(db, await getPerson(event, db), params.code, now),
)
