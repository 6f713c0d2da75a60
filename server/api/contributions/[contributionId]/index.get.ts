import { requireContribution } from '#server/access/seminar'
import { route } from '#server/http/route'
import { ownText } from '#server/services/contributing/write'
import { ContributionParams, OwnText } from '#shared/contributing/thread'

export default route({ params: ContributionParams, answer: OwnText }, async ({ event, db, params, now }) =>
  ownText(await requireContribution(event, db, params.contributionId, now)),
)
