import { requireContribution } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setWithdrawn } from '#server/services/contributing/contributionState'
import { ContributionParams, Done, WithdrawnWrite } from '#shared/contributing/thread'

export default route(
  { params: ContributionParams, body: WithdrawnWrite, answer: Done },
  async ({ event, db, params, body, now }) =>
    setWithdrawn(db, await requireContribution(event, db, params.contributionId, now), body.withdrawn, now),
)
