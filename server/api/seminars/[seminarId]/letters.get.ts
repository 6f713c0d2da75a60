import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { ownLetters } from '#server/services/marking/letters'
import { Letters } from '#shared/marking/letter'
import { SeminarParams } from '#shared/people/seminar'

export default route({ params: SeminarParams, answer: Letters }, async ({ event, db, params }) => ({
  letters: await ownLetters(db, await requireMember(event, db, params.seminarId)),
}))
