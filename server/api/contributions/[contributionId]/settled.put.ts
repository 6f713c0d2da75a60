import { requireContribution } from '#server/access/seminar'
import { route } from '#server/http/route'
import { setSettled } from '#server/services/contributing/reading/readReading'
import { SettledWrite } from '#shared/contributing/reading'
import { ContributionParams, Done } from '#shared/contributing/thread'

export default route(
  { params: ContributionParams, body: SettledWrite, answer: Done },
  async ({ event, db, params, body, now }) =>
    setSettled(db, await requireContribution(event, db, params.contributionId, now), body.settled, now),
)
