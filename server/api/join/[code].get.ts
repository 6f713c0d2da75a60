import { getPerson } from '#server/access/session'
import { route } from '#server/http/route'
import { joinView } from '#server/services/people/joining'
import * as peopleEndpoints from '#shared/people/endpoints'

export default route(peopleEndpoints.readJoiningCode, async ({ event, db, params, now }) =>
  joinView(db, await getPerson(event, db), params.code, now),
)
