import { requireContribution } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setOnTop } from '#server/services/contributing/contributionState'
import { ContributionParams, Done, OnTopWrite } from '#shared/contributing/thread'

export default route(
  { params: ContributionParams, body: OnTopWrite, answer: Done },
  async ({ event, db, params, body, now }) =>
    setOnTop(db, await requireContribution(event, db, params.contributionId, now), body.onTop, now),
)
