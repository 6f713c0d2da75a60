import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { takeSampleAway } from '#server/services/marking/peers/moderate'
import { Done } from '#shared/contributing/thread'
import { SampleParams } from '#shared/marking/peers'

export default route({ params: SampleParams, answer: Done }, async ({ event, db, params, now }) =>
  takeSampleAway(db, await requireMarker(event, db, params.activityId, now), params.entryId, now),
)
