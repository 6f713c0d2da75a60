import { requireManager } from '#server/access/seminar'
import { progressRoute } from '#server/http/route'
import { importRoster } from '#server/services/people/roster'
import { RosterAnswer, RosterWrite } from '#shared/people/people'
import { SeminarParams } from '#shared/people/seminar'

export default progressRoute(
  { params: SeminarParams, body: RosterWrite, largest: 8_400_000, answer: RosterAnswer },
  async ({ event, db, params, body, now, progress }) =>
    importRoster(db, await requireManager(event, db, params.seminarId), body, now, progress),
)
