import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { takeAnnotations } from '#server/kinds/reading/annotations'
import { withIdempotency } from '#server/services/idempotency'
import * as readingEndpoints from '#shared/kinds/reading/endpoints'

export default route(readingEndpoints.importAnnotations, async ({ event, db, params, body, now }) => {
  const actor = await requireContributor(event, db, params.activityId, now)
  return body.trial
    ? takeAnnotations(db, actor, body, now)
    : withIdempotency(db, actor.enrolment, body.key, tx => takeAnnotations(tx as typeof db, actor, body, now))
})
