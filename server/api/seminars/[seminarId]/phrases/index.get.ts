import { requireStaff } from '#server/access/seminar'
import { route } from '#server/http/route'
import { ownPhrases } from '#server/services/marking/phrases'
import { Phrases } from '#shared/marking/desk'
import { SeminarParams } from '#shared/people/seminar'

export default route({ params: SeminarParams, answer: Phrases }, async ({ event, db, params }) =>
  ownPhrases(db, await requireStaff(event, db, params.seminarId)),
)
