import { requireReviewer } from '#server/kinds/review/reviewAccess'
import { blindFileRoute } from '#server/http/fileRoute'
import { blindFile } from '#server/kinds/review/blindFile'
import * as reviewEndpoints from '#shared/kinds/review/endpoints'

export default blindFileRoute(reviewEndpoints.readReviewedFile, async ({ event, db, params, query, now }) =>
  blindFile(
    db,
    (await requireReviewer(event, db, params.reviewId, now)).allocation,
    params.place,
    query.text !== undefined,
  ),
)
