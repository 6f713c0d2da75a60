import { requireManager } from '#server/access/seminar'
import { route } from '#server/http/route'
import { previewRoster } from '#server/services/people/roster'
import { RosterFile, RosterPreview } from '#shared/people/people'
import { SeminarParams } from '#shared/people/seminar'

export default route(
  { params: SeminarParams, body: RosterFile, largest: 8_400_000, answer: RosterPreview },
  async ({ event, db, params, body }) =>
    previewRoster(db, await requireManager(event, db, params.seminarId), body),
)
