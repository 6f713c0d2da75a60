import { requireContributionMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { markContribution } from '#server/services/marking/markContribution'
import { ContributionParams, Done } from '#shared/contributing/thread'
import { ContributionMarkWrite } from '#shared/marking/desk'

export default route(
  { params: ContributionParams, body: ContributionMarkWrite, answer: Done },
  async ({ event, db, params, body, now }) =>
    markContribution(db, await requireContributionMarker(event, db, params.contributionId, now), body, now),
)
