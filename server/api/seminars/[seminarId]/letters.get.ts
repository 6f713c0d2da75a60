import { requireMember } from '#server/access/seminar'
import { route } from '#server/http/route'
import { ownLetters } from '#server/services/marking/letters'
import * as markingEndpoints from '#shared/marking/endpoints'

export default route(markingEndpoints.readOwnLetters, async ({ event, db, params }) => ({
  letters: await ownLetters(db, await requireMember(event, db, params.seminarId)),
}))
