import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { seminarShell } from '#server/services/people/seminarShell'
import { SeminarParams, SeminarShell } from '#shared/people/seminar'

export default route({ params: SeminarParams, answer: SeminarShell }, async ({ event, db, params, now }) =>
  seminarShell(db, await requireMember(event, db, params.seminarId), now),
)
