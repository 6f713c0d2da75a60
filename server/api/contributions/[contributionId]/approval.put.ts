import { requireContribution } from '#server/access/seminar'
import { route } from '#server/http/route'
import { approve } from '#server/services/contributing/approve'
import { ApprovalWrite, ContributionParams, Done } from '#shared/contributing/thread'

export default route(
  { params: ContributionParams, body: ApprovalWrite, answer: Done },
  async ({ event, db, params, body, now }) =>
    approve(db, await requireContribution(event, db, params.contributionId, now), body, now),
)
