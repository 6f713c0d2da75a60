import { requireContribution } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setNod } from '#server/services/contributing/contributionState'
import { ContributionParams, NodAnswer, NodWrite } from '#shared/contributing/thread'

export default route(
  { params: ContributionParams, body: NodWrite, answer: NodAnswer },
  async ({ event, db, params, body, now }) =>
    setNod(db, await requireContribution(event, db, params.contributionId, now), body, now),
)
