import { requireActivity } from '#server/access/seminar'
import { route } from '#server/http/route'
import { readThread } from '#server/services/screens/readThread'
import { packThread } from '#shared/contributing/packedThread'
import * as contributingEndpoints from '#shared/contributing/endpoints'

export default route(contributingEndpoints.readThread, async ({ event, db, params, query, now }) =>
  packThread(
    await readThread(db, await requireActivity(event, db, params.activityId, now), now, {
      first: query.first === 'true',
    }),
  ),
)
