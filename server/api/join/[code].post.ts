import { beginSession, getPerson } from '#server/access/session'
import { route } from '#server/http/route'
import { join } from '#server/services/people/joining'
import { CodeParams, JoinAnswer, JoinWrite } from '#shared/people/account'

export default route(
  { params: CodeParams, body: JoinWrite, answer: JoinAnswer },
  async ({ event, db, params, body, now }) => {
    const person = await getPerson(event, db)
    const joined = await join(db, person, params.code, body.account, now)
    if (!person) await beginSession(event, db, joined.personId)
    return joined
  },
)
