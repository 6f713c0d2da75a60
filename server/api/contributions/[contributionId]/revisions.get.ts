import { requireContributionMarker } from '#server/access/seminar'
import { route } from '#server/http/route'
import { revisionsOf } from '#server/services/contributing/write'
import { ContributionParams, Revisions } from '#shared/contributing/thread'

export default route({ params: ContributionParams, answer: Revisions }, async ({ event, db, params, now }) =>
  revisionsOf(db, (await requireContributionMarker(event, db, params.contributionId, now)).contribution),
)
