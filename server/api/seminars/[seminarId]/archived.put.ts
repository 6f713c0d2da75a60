import { requireInstructor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setArchived } from '#server/services/people/seminars'
import { Done } from '#shared/contributing/thread'
import { ArchivedWrite } from '#shared/people/settings'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, body: ArchivedWrite, answer: Done },
  async ({ event, db, params, body, now }) => {
    await setArchived(db, await requireInstructor(event, db, params.seminarId), body.archived, now)
    return { done: true }
  },
)
