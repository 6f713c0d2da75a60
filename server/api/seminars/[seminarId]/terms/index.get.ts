import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { seminarTerms } from '#server/services/contributing/lexicon/seminarTerms'
import { TermsView } from '#shared/contributing/lexicon'
import { SeminarParams } from '#shared/people/seminar'

export default route({ params: SeminarParams, answer: TermsView }, async ({ event, db, params, now }) =>
  seminarTerms(db, await requireMember(event, db, params.seminarId), now),
)
