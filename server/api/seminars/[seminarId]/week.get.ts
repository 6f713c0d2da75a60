import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { myWeek } from '#server/services/planning/myWeek'
import { SeminarParams } from '#shared/people/seminar'
import { MyWeek } from '#shared/planning/myWeek'

export default route({ params: SeminarParams, answer: MyWeek }, async ({ event, db, params, now }) =>
  myWeek(db, await requireMember(event, db, params.seminarId), now),
)
