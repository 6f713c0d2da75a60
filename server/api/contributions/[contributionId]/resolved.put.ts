import { requireContribution } from '#server/access/seminar'
import { route } from '#server/http/route'
import { resolveComment } from '#server/services/contributing/wiki/comments'
import { ContributionParams, Done } from '#shared/contributing/thread'
import { ResolvedWrite } from '#shared/contributing/wiki'

export default route(
  { params: ContributionParams, body: ResolvedWrite, answer: Done },
  async ({ event, db, params, body, now }) =>
    resolveComment(db, await requireContribution(event, db, params.contributionId, now), body.number, now),
)
