import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { termCard } from '#server/services/contributing/lexicon/seminarTerms'
import { TermCard, TermParams } from '#shared/contributing/lexicon'

export default route({ params: TermParams, answer: TermCard }, async ({ event, db, params, now }) =>
  termCard(db, await requireMember(event, db, params.seminarId), params.termId, now),
)
