import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readVoices } from '#server/services/voices/readVoices'
import * as voicesEndpoints from '#shared/voices/endpoints'

export default route(voicesEndpoints.readVoices, async ({ event, db, params, query, now }) =>
  readVoices(db, await requireStaff(event, db, params.seminarId), query, now),
)
