import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { invite } from '#server/services/people/people'
import { InviteAnswer, InviteWrite } from '#shared/people/people'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, body: InviteWrite, answer: InviteAnswer },
  async ({ event, db, params, body, now }) =>
    invite(db, await requireManager(event, db, params.seminarId), body.key, body.enrolmentIds, now),
)
