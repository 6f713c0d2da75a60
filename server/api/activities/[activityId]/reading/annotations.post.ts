import { requireContributor } from '#server/access/seminar'
import { route } from '#server/http/route'
import { takeAnnotations } from '#server/services/contributing/reading/annotations'
import { withIdempotency } from '#server/services/idempotency'
import { ActivityParams } from '#shared/contributing/activity'
import { AnnotationsTake, AnnotationsTaken } from '#shared/contributing/reading'

export default route(
  { params: ActivityParams, body: AnnotationsTake, largest: 10_000_000, answer: AnnotationsTaken },
  async ({ event, db, params, body, now }) => {
    const actor = await requireContributor(event, db, params.activityId, now)
    return body.trial
      ? takeAnnotations(db, actor, body, now)
      : withIdempotency(db, actor.enrolment, body.key, tx =>
          takeAnnotations(tx as typeof db, actor, body, now),
        )
  },
)
