import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setNamedInFeeds } from '#server/services/contributing/feed'
import { NamedWrite } from '#shared/contributing/takeOut'
import { Done } from '#shared/contributing/thread'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, body: NamedWrite, answer: Done },
  async ({ event, db, params, body }) =>
    setNamedInFeeds(db, await requireMember(event, db, params.seminarId), body.named),
)
