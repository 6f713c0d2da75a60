import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { peersView } from '#server/services/marking/peers/peersView'
import { ActivityParams } from '#shared/contributing/activity'
import { PeersView } from '#shared/marking/peers'

export default route({ params: ActivityParams, answer: PeersView }, async ({ event, db, params, now }) =>
  peersView(db, await requireMarker(event, db, params.activityId, now), now),
)
