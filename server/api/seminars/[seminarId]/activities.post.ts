import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { makeActivity } from '#server/services/planning/makeActivity'
import { ActivityMade, ActivityMake } from '#shared/planning/composer'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, body: ActivityMake, answer: ActivityMade },
  async ({ event, db, params, body, now }) =>
    makeActivity(db, await requireManager(event, db, params.seminarId), body, now),
)
