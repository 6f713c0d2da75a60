import { requireContribution } from '#server/access/seminar'
import { route } from '#server/http/route'
import { editContribution } from '#server/services/contributing/write'
import { ContributionParams, EditAnswer, EditWrite } from '#shared/contributing/thread'

export default route(
  { params: ContributionParams, body: EditWrite, answer: EditAnswer },
  async ({ event, db, params, body, now }) =>
    editContribution(db, await requireContribution(event, db, params.contributionId, now), body, now),
)
