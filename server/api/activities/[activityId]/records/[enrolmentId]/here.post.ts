import { requireMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { noteMarkerHere } from '#server/services/marking/markersHere'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.noteMarkerHere, async ({ event, db, params, now }) =>
  noteMarkerHere(db, await requireMarker(event, db, params.activityId, now), params.enrolmentId, now),
)
