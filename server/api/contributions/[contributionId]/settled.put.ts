import { requireContribution } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setSettled } from '#server/kinds/reading/readReading'
import * as readingEndpoints from '#shared/kinds/reading/endpoints'

export default route(readingEndpoints.settleQuestion, async ({ event, db, params, body, now }) =>
  setSettled(db, await requireContribution(event, db, params.contributionId, now), body.settled, now),
)
