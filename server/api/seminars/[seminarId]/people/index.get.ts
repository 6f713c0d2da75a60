import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { peopleView } from '#server/services/people/people'
import { PeopleView } from '#shared/people/people'
import { SeminarParams } from '#shared/people/seminar'

export default route({ params: SeminarParams, answer: PeopleView }, async ({ event, db, params, now }) =>
  peopleView(db, await requireStaff(event, db, params.seminarId), now),
)
