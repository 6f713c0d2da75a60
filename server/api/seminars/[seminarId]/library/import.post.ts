import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { importToLibrary } from '#server/services/marking/rubrics'
import { RubricImport, RubricImported } from '#shared/marking/rubric'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, body: RubricImport, largest: 2_100_000, answer: RubricImported },
  async ({ event, db, params, body, now }) =>
    importToLibrary(db, await requireManager(event, db, params.seminarId), body, now),
)
