import { requireContribution } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setSettled } from '#server/services/contributing/reading/readReading'
import * as readingEndpoints from '#shared/contributing/readingEndpoints'

export default route(readingEndpoints.settleQuestion, async ({ event, db, params, body, now }) =>
  setSettled(db, await requireContribution(event, db, params.contributionId, now), body.settled, now),
)
