import { requireContributionMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { markDone } from '#server/services/marking/markDone'
import { ContributionParams, Done, DoneWrite } from '#shared/contributing/thread'

export default route({ params: ContributionParams, body: DoneWrite, answer: Done }, async ({ event, db, params, body, now }) =>
  markDone(db, await requireContributionMarker(event, db, params.contributionId, now), body.done, now))
