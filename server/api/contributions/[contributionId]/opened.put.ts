import { requireContribution } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setOpened } from '#server/services/contributing/contributionState'
import { ContributionParams, Done, OpenedWrite } from '#shared/contributing/thread'

export default route(
  { params: ContributionParams, body: OpenedWrite, answer: Done },
  async ({ event, db, params, body, now }) =>
    setOpened(db, await requireContribution(event, db, params.contributionId, now), body.opened, now),
)
