import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { addText } from '#server/services/contributing/reading/library'
import { TextAdd, TextAdded } from '#shared/contributing/reading'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, body: TextAdd, largest: 30_000_000, answer: TextAdded },
  async ({ event, db, params, body, now }) =>
    addText(db, await requireManager(event, db, params.seminarId), body, now),
)
