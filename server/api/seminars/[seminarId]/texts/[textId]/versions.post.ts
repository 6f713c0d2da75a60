import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { addTextVersion } from '#server/services/contributing/reading/library'
import { TextParams, TextVersionAdd, VersionAdded } from '#shared/contributing/reading'

export default route(
  { params: TextParams, body: TextVersionAdd, largest: 30_000_000, answer: VersionAdded },
  async ({ event, db, params, body, now }) =>
    addTextVersion(db, await requireManager(event, db, params.seminarId), params.textId, body, now),
)
