import { requireReviewer } from '#server/services/contributing/review/reviewAccess'
import { blindFileRoute } from '#server/http/fileRoute'
import { blindFile } from '#server/services/contributing/review/blindFile'
import * as reviewEndpoints from '#shared/contributing/reviewEndpoints'

export default blindFileRoute(reviewEndpoints.readReviewedFile, async ({ event, db, params, query, now }) =>
  blindFile(
    db,
    (await requireReviewer(event, db, params.reviewId, now)).allocation,
    params.place,
    query.text !== undefined,
  ),
)
