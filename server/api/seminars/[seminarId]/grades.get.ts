import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { ownGrades } from '#server/services/marking/gradebook/gradebook'
import { OwnGrades } from '#shared/marking/gradebook'
import { SeminarParams } from '#shared/people/seminar'

export default route({ params: SeminarParams, answer: OwnGrades }, async ({ event, db, params, now }) =>
  ownGrades(db, await requireMember(event, db, params.seminarId), now),
)
